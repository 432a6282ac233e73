#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>

namespace sunbreak::desktop {

/// Small makers for the few kinds of text the screens are built of.
QLabel* quiet_label(const QString& text, QWidget* parent = nullptr);
QLabel* heading_label(const QString& text, QWidget* parent = nullptr);
QLabel* figure_label(int pixels, QWidget* parent = nullptr);
QLabel* wrapped_label(const QString& text, QWidget* parent = nullptr);
QFrame* thin_rule(QWidget* parent = nullptr);
QPushButton* primary_button(const QString& text, QWidget* parent = nullptr);

/// Sets a dynamic property that the style sheet looks at, and lets it look again.
void set_tone(QWidget* widget, const char* tone);

/// "1 sweep", "12 sweeps".
QString counted(qsizetype count, const QString& one, const QString& many);

/// Makes a line of text good, worth a look, or bad; with a mark in front, so that color is never alone.
QString marked_attention(const QString& text);

/// Letters of another size and weight.
void size_letters(QWidget* widget, int pixels, bool bold);

}  // namespace sunbreak::desktop
