// Linen and indigo: both readable, changed at once, and kept.
#include <QSignalSpy>
#include <QSettings>
#include <QToolButton>
#include <cmath>

#include "app/workroom/ThreadRound.h"
#include "app/Story.h"
#include "app/look/Theme.h"
#include "app/look/ThemeChoice.h"

namespace uq::test {

namespace {

// Relative luminance and contrast as the Web Content Accessibility Guidelines 2.1 define them.
double luminance(const QColor& colour) {
  const auto linear = [](double c) { return c <= 0.03928 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF());
}
double contrast(const QColor& a, const QColor& b) {
  const double one = luminance(a) + 0.05;
  const double other = luminance(b) + 0.05;
  return std::max(one, other) / std::min(one, other);
}

}  // namespace

TEST(Theme, TextMeetsAaInBothThemes) {
  for (const Theme* theme : {&Theme::linen(), &Theme::indigo()}) {
    for (const QColor& ground : {theme->panel, theme->paper}) {
      EXPECT_GE(contrast(theme->ink, ground), 4.5);
      EXPECT_GE(contrast(theme->softInk, ground), 4.5) << ground.name().toStdString();
      EXPECT_GE(contrast(theme->weld, ground), 4.5) << ground.name().toStdString();
      // Marks and borders that carry meaning.
      EXPECT_GE(contrast(theme->madder, ground), 3.0);
      EXPECT_GE(contrast(theme->woad, ground), 3.0);
    }
    EXPECT_GE(contrast(theme->ink, theme->cloth), 4.5);
    EXPECT_GE(contrast(theme->softInk, theme->cloth), 3.9);
    EXPECT_GE(contrast(theme->paper, theme->woad), 4.5) << "selected text";
    // The two tones of a stitch tell each other apart on any art.
    EXPECT_GE(contrast(theme->ink, theme->paper), 7.0);
  }
}

class Themes : public Story {
 protected:
  ~Themes() override { chooseTheme(ThemeChoice::linen); }
};

TEST_F(Themes, TheWorkroomTurnsDarkAtOnceAndStaysSo) {
  openDemo();
  hand.click(room->table(), onTable("yard", 30));
  const auto rest = [this] { hand.moveTo(room->canvas(), QPointF(3, 3)); };
  // The foot line counts them.
  auto* round = room->findChild<ThreadRound*>();
  QSignalSpy looked(round, &ThreadRound::looked);
  while (round->isDue()) ASSERT_TRUE(looked.wait(10000));
  rest();
  const QImage light = room->grab().toImage();
  Story::choose(ActionId::indigo);
  settle();
  picture("turned-dark");
  const QImage dark = room->grab().toImage();
  EXPECT_EQ(QApplication::palette().color(QPalette::Window), Theme::indigo().panel);
  EXPECT_NE(dark, light);
  EXPECT_TRUE(room->actions()->action(ActionId::indigo)->isChecked());
  EXPECT_EQ(QSettings().value(QStringLiteral("look/theme")).toString(), QStringLiteral("indigo"));
  Story::choose(ActionId::linen);
  rest();
  settle();
  EXPECT_EQ(room->grab().toImage(), light);
  // The active tab alone is bold, whatever the theme.
  MapPlan plan;
  plan.name = "Siding";
  plan.width = plan.height = 4;
  session().verbs().maps.add(plan);
  for (const ActionId theme : {ActionId::indigo, ActionId::linen}) {
    session().verbs().maps.goTo(session().desk().openMaps[theme == ActionId::linen ? 1 : 0]);
    Story::choose(theme);
    settle();
    for (const Id map : session().desk().openMaps) {
      EXPECT_EQ(room->tabs()->tab(map)->font().bold(), map == session().desk().map);
    }
  }
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  Story::choose(ActionId::asDesktop);
  EXPECT_FALSE(QSettings().contains(QStringLiteral("look/theme")));
  EXPECT_TRUE(session().isSaved());
}

}  // namespace uq::test
