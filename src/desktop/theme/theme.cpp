#include "desktop/theme/theme.h"

#include <QApplication>
#include <QFile>
#include <QFontDatabase>
#include <QPalette>
#include <QStyleFactory>

#include "desktop/theme/focus_mark.h"
#include "desktop/theme/plain_labels.h"

namespace sunbreak::desktop {
namespace {

const Theme paper{Look::Paper,      QColor(0xF4F1EA), QColor(0xFBF9F4), QColor(0x1E2A2F), QColor(0x5C686C),
                  QColor(0xD8D2C4), QColor(0xB4471B), QColor(0x1D6470), QColor(0x3C7A3F), QColor(0x8A5A00),
                  QColor(0xA3261F), QColor(0x1E2A2F), QColor(0xECE7DB), QColor(0x9BA7A8)};
const Theme loft{Look::Loft,       QColor(0x14191C), QColor(0x1C2327), QColor(0xECE7DB), QColor(0x9BA7A8),
                 QColor(0x324046), QColor(0xE8834F), QColor(0x6FB7C2), QColor(0x86C28A), QColor(0xD9A441),
                 QColor(0xE5796F), QColor(0x0C1012), QColor(0xECE7DB), QColor(0x9BA7A8)};

const Theme* current = &paper;

bool desktop_is_dark() { return QPalette().color(QPalette::Window).lightness() < 110; }

QPalette palette_of(const Theme& t) {
  QPalette p;
  p.setColor(QPalette::Window, t.panel);
  p.setColor(QPalette::Base, t.panel);
  p.setColor(QPalette::AlternateBase, t.ground);
  p.setColor(QPalette::Button, t.panel);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText, QPalette::ToolTipText})
    p.setColor(role, t.ink);
  p.setColor(QPalette::ToolTipBase, t.panel);
  p.setColor(QPalette::PlaceholderText, t.quiet);
  p.setColor(QPalette::Highlight, t.ember);
  p.setColor(QPalette::HighlightedText, t.panel);
  p.setColor(QPalette::Link, t.lake);
  p.setColor(QPalette::LinkVisited, t.lake);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
    p.setColor(QPalette::Disabled, role, t.quiet);
  return p;
}

QString style_sheet(const Theme& t) {
  QFile file(":/theme/style.qss");
  file.open(QIODevice::ReadOnly);
  QString text = QString::fromUtf8(file.readAll());
  const std::pair<const char*, QString> tokens[] = {{"@ground", t.ground.name()},
                                                    {"@panel", t.panel.name()},
                                                    {"@ink", t.ink.name()},
                                                    {"@quiet", t.quiet.name()},
                                                    {"@rule", t.rule.name()},
                                                    {"@ember", t.ember.name()},
                                                    {"@lake", t.lake.name()},
                                                    {"@good", t.good.name()},
                                                    {"@attention", t.attention.name()},
                                                    {"@bad", t.bad.name()},
                                                    {"@strip-ink", t.strip_ink.name()},
                                                    {"@strip-quiet", t.strip_quiet.name()},
                                                    {"@strip", t.strip.name()},
                                                    {"@name", t.look == Look::Paper ? "paper" : "loft"}};
  for (const auto& [name, value] : tokens) text.replace(name, value);
  return text;
}

}  // namespace

const Theme& theme() { return *current; }

void load_fonts() {
  for (const char* face : {"Regular", "Bold", "Italic"})
    QFontDatabase::addApplicationFont(QString(":/fonts/%1.otf").arg(face));
}

void apply_look(QApplication& app, LookChoice choice) {
  static const bool dark_desktop = desktop_is_dark();
  static PlainLabels* plain = nullptr;
  if (!plain) {
    app.installEventFilter(plain = new PlainLabels(&app));
    new FocusMark(&app);
    app.setStyle(QStyleFactory::create("Fusion"));
    app.setFont(text_font(13));
  }
  current = choice == LookChoice::Loft || (choice == LookChoice::FollowDesktop && dark_desktop) ? &loft : &paper;
  app.setPalette(palette_of(*current));
  app.setStyleSheet(style_sheet(*current));
}

QFont text_font(int pixels, bool bold) {
  QFont font("Sunbreak Sans");
  font.setPixelSize(pixels);
  font.setBold(bold);
  return font;
}

}  // namespace sunbreak::desktop
