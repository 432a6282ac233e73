#pragma once

#include <QVBoxLayout>
#include <QWidget>

namespace sunbreak::desktop {

/// A widget in a plain one of its own: what is drawn about the one that has the keyboard becomes its neighbor, and a
/// splitter would make a part of that.
inline QWidget* framed(QWidget* inner, QWidget* parent) {
  auto* frame = new QWidget(parent);
  auto* layout = new QVBoxLayout(frame);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(inner);
  return frame;
}

}  // namespace sunbreak::desktop
