#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QDir>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QProcess>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>

#include "desktop/audit/audit_view.h"
#include "desktop/audit/audit_work.h"
#include "desktop/audit/claim_list.h"
#include "desktop/widgets/text.h"
#include "record/claim_kinds.h"
#include "record/json.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// The sample lab book's strip of lensed pucks on the open floor, audited by keys in the real window.
class AuditTest : public SampleWindowTest {
 protected:
  void SetUp() override {
    SampleWindowTest::SetUp();
    open_test(3, Stage::Audit);
    ASSERT_TRUE(QTest::qWaitFor([&] { return claims()->count() == 4; }, 60000));
  }
  ClaimList* claims() { return find<ClaimList>("claimList"); }
  QTableWidget* words() { return find<QTableWidget>("verdictWords"); }
  const evaluation::AuditedClaim* claim(const std::string& slot) {
    const auto& audit = window_->findChild<AuditWork*>()->audit();
    if (!audit) return nullptr;
    for (const auto& a : audit->claims)
      if (a.slot == slot) return &a;
    return nullptr;
  }
  bool wait(const std::function<bool()>& until) { return QTest::qWaitFor(until, 60000); }
  /// Waits for a dialog of a name and does something in it.
  void in_dialog(const char* name, const std::function<void(QWidget*)>& act) {
    auto* timer = new QTimer(window_.get());
    QObject::connect(timer, &QTimer::timeout, window_.get(), [=] {
      QWidget* dialog = QApplication::activeModalWidget();
      if (!dialog || dialog->objectName() != name) return;
      timer->stop();
      timer->deleteLater();
      act(dialog);
    });
    timer->start(10);
  }
  record::Json command_line() {
    QProcess cli;
    cli.start(SUNBREAK_CLI, {"audit", text_of(book_file()), "--test", "3", "--json"});
    EXPECT_TRUE(cli.waitForFinished(60000));
    EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
    return record::json_of(cli.readAllStandardOutput().toStdString());
  }
  static void expect_number(const record::Json& there, double here, const std::string& what) {
    if (std::isnan(here))
      EXPECT_TRUE(there.is_null()) << what;
    else
      EXPECT_DOUBLE_EQ(there.number(), here) << what;
  }
};

TEST_F(AuditTest, ClaimsAreTypedAMapPastedASentenceWrittenAndAllPublished) {
  // What the box says, typed as it stands there.
  key(Qt::Key_N);
  EXPECT_EQ(focused()->objectName(), "claimSentence");
  type("1.02 A; weighs 4.1 kg; in short: splendid");
  key(Qt::Key_Return);
  ASSERT_TRUE(wait([&] { return claims()->count() == 6; }));
  EXPECT_EQ(find<QLineEdit>("claimSentence")->text(), "in short: splendid") << "what was not understood stays";
  ASSERT_TRUE(claim("current_a"));
  EXPECT_EQ(claim("current_a")->judgement.verdict, Verdict::Confirmed) << claim("current_a")->reason;

  // The claim in words alone is split.
  claims()->setFocus();
  key(Qt::Key_Home);
  for (int i = 0; i < 3 && record::is_stated(claims()->chosen()->claim); ++i) key(Qt::Key_Down);
  ASSERT_EQ(claims()->chosen()->claim.kind, "coverage");
  EXPECT_EQ(claims()->chosen()->judgement.verdict, Verdict::NotTestable);
  key(Qt::Key_S);
  ASSERT_TRUE(wait([&] { return claim("coverage") && claim("coverage")->claim.width_m; }));
  EXPECT_EQ(claim("coverage")->judgement.verdict, Verdict::Contradicted);
  EXPECT_LT(claim("coverage")->measured, 60);

  // The maker's map, pasted from a spreadsheet: it is told first what is wrong with it, then kept.
  QApplication::clipboard()->setText("700\t800\t700\n750\t900\t750\n700\t800\t700\n");
  in_dialog("claimDialog", [](QWidget* dialog) {
    EXPECT_EQ(dialog->findChild<QLabel*>("claimMapWords")->text(), "3 × 3 values; the first row is the far one.");
    auto* keep = dialog->findChild<QPushButton*>("keepClaim");
    put(dialog, "claimSize", "fifty");
    QTest::mouseClick(keep, Qt::LeftButton);
    EXPECT_TRUE(dialog->findChild<QLabel*>("claimTrouble")->text().contains("'fifty' is no area"));
    put(dialog, "claimSize", "50 x 50 cm");
    put(dialog, "claimHeight", "45 cm");
    put(dialog, "claimPercent", "100");
    put(dialog, "claimSource", "the leaflet");
    QTest::mouseClick(keep, Qt::LeftButton);
  });
  key(Qt::Key_V, Qt::ControlModifier);
  ASSERT_TRUE(wait([&] { return claim("map.2") && claim("map.2")->map; }));
  EXPECT_EQ(claim("map.2")->claim.map_ppfd, "700 800 700 750 900 750 700 800 700");
  EXPECT_NE(claim("map.2")->reason.find("At 45 cm and 100 %"), std::string::npos) << claim("map.2")->reason;
  claims()->setFocus();
  key(Qt::Key_End);
  EXPECT_TRUE(find<QLabel>("claimReason")->text().contains("lowest ÷ mean is"));

  // A sentence of the verdict in the tester's own words.
  key(Qt::Key_W);
  EXPECT_EQ(focused(), words());
  key(Qt::Key_Home);
  const QString drafted = words()->item(0, 1)->text();
  key(Qt::Key_Return);
  ASSERT_NE(focused(), words());
  key(Qt::Key_A, Qt::ControlModifier);
  type("Bright in the middle, and only there.");
  key(Qt::Key_Return);
  const auto first_sentence = [&] { return words()->item(0, 1)->text(); };
  ASSERT_TRUE(wait([&] { return words()->item(0, 2)->text().contains("your own words"); }));
  EXPECT_EQ(first_sentence(), "Bright in the middle, and only there.");
  EXPECT_TRUE(words()->item(0, 2)->text().contains("µmol/m²/s")) << "the figure stays beside it";
  desk().edits().undo();
  ASSERT_TRUE(wait([&] { return first_sentence() == drafted; }));
  desk().edits().redo();
  ASSERT_TRUE(wait([&] { return first_sentence() != drafted; }));
  // Another is struck out.
  words()->setFocus();
  words()->setCurrentCell(1, 1);
  const QString struck = words()->item(1, 1)->text();
  key(Qt::Key_Delete);
  ASSERT_TRUE(wait([&] { return words()->item(1, 2)->text().contains("struck out"); }));

  // As the command line has it.
  const record::Json there = command_line();
  const auto& audit = *window_->findChild<AuditWork*>()->audit();
  ASSERT_EQ(there["claims"].size(), audit.claims.size());
  for (std::size_t i = 0; i < audit.claims.size(); ++i) {
    const auto& a = audit.claims[i];
    const auto& c = there["claims"][i];
    EXPECT_EQ(c["slot"], a.slot);
    EXPECT_EQ(c["verdict"], verdict_id(a.judgement.verdict)) << a.slot;
    EXPECT_EQ(c["reason"], a.reason);
    expect_number(c["claimed"], a.claimed, a.slot);
    expect_number(c["measured"], a.measured, a.slot);
    expect_number(c["expanded_k2"], a.expanded, a.slot);
    expect_number(c["difference_pct"], a.judgement.difference_pct, a.slot);
    expect_number(c["chance"], a.judgement.chance, a.slot);
  }
  EXPECT_EQ(there["words"][0]["sentence"], "Bright in the middle, and only there.");
  EXPECT_EQ(there["words"][0]["own"], true);
  for (const auto& sentence : there["words"]) EXPECT_NE(sentence["sentence"], struck.toStdString());

  // On the page and in the package.
  window_->show_stage(Stage::Publish);
  find<QLineEdit>("publishFolder")->setText(path("out"));
  QTest::mouseClick(find<QPushButton>("writePage"), Qt::LeftButton);
  QTest::mouseClick(find<QPushButton>("writePackage"), Qt::LeftButton);
  ASSERT_TRUE(wait([&] { return QDir(path("out")).entryList({"*.zip"}).size() == 1; }));
  QFile page(path("out") + "/" + QDir(path("out")).entryList({"*.html"}).value(0));
  ASSERT_TRUE(page.open(QIODevice::ReadOnly));
  const QString html = QString::fromUtf8(page.readAll());
  EXPECT_TRUE(html.contains("Bright in the middle, and only there."));
  EXPECT_TRUE(html.contains("own words; the figure: "));
  EXPECT_FALSE(html.contains(struck));
  EXPECT_TRUE(html.contains(QString::fromStdString(verdict_words(claim("power_w")->judgement))));
  // A package of the test audits as the lab book does.
  QProcess cli;
  cli.start(SUNBREAK_CLI, {"audit", path("out") + "/" + QDir(path("out")).entryList({"*.zip"}).value(0), "--json"});
  ASSERT_TRUE(cli.waitForFinished(60000));
  const auto again = record::json_of(cli.readAllStandardOutput().toStdString());
  EXPECT_EQ(again["claims"], there["claims"]);
  EXPECT_EQ(again["words"], there["words"]);
}

TEST_F(AuditTest, AClaimIsChangedAndTakenAway) {
  claims()->setFocus();
  key(Qt::Key_Home);
  in_dialog("claimDialog", [](QWidget* dialog) {
    EXPECT_EQ(dialog->findChild<QLineEdit*>("claimValue")->text(), "300");
    dialog->findChild<QComboBox*>("claimUnit")->setCurrentText("kW");
    put(dialog, "claimValue", "0.23");
    QTest::mouseClick(dialog->findChild<QPushButton*>("keepClaim"), Qt::LeftButton);
  });
  key(Qt::Key_Return);
  ASSERT_TRUE(wait([&] { return claim("power_w") && claim("power_w")->claim.unit == "kW"; }));
  EXPECT_DOUBLE_EQ(*claim("power_w")->claim.value, 230);
  EXPECT_EQ(claim("power_w")->judgement.verdict, Verdict::Confirmed);
  EXPECT_EQ(claim("power_w")->measured_words, "0.2280 ± 0.0046 kW");
  key(Qt::Key_Delete);
  ASSERT_TRUE(wait([&] { return claims()->count() == 3; }));
  desk().edits().undo();
  ASSERT_TRUE(wait([&] { return claims()->count() == 4; }));
  QApplication::clipboard()->clear();
  key(Qt::Key_C, Qt::ControlModifier);
  EXPECT_EQ(QApplication::clipboard()->text().count('\n'), 5) << "a head and four claims";
}

TEST_F(AuditTest, AnImpossibleClaimIsRefusedAndNothingLost) {
  in_dialog("claimDialog", [](QWidget* dialog) {
    auto* kind = dialog->findChild<QComboBox*>("claimKind");
    kind->setCurrentIndex(kind->findData("power_factor"));
    auto* keep = dialog->findChild<QPushButton*>("keepClaim");
    put(dialog, "claimValue", "1.4");
    QTest::mouseClick(keep, Qt::LeftButton);
    EXPECT_TRUE(dialog->findChild<QLabel*>("claimTrouble")->text().contains("0 to 1"));
    put(dialog, "claimValue", "high");
    QTest::mouseClick(keep, Qt::LeftButton);
    EXPECT_TRUE(dialog->findChild<QLabel*>("claimTrouble")->text().contains("'high' is no number"));
    kind->setCurrentIndex(kind->findData("map"));
    dialog->findChild<QPlainTextEdit*>("claimMap")->setPlainText("400 x 300\n300 200 100");
    put(dialog, "claimSize", "50 x 50 cm");
    QTest::mouseClick(keep, Qt::LeftButton);
    EXPECT_TRUE(dialog->isVisible()) << "a map with a cell that is no number is not taken";
    qobject_cast<QDialog*>(dialog)->reject();
  });
  key(Qt::Key_M);
  EXPECT_EQ(claims()->count(), 4);
}

}  // namespace
