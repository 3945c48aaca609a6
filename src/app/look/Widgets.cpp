#include "app/look/Widgets.h"

#include <QAction>
#include <QEvent>
#include <QHBoxLayout>

#include "app/look/Icons.h"
#include "app/look/Theme.h"

namespace uq {

void makeCard(QFrame* frame) { frame->setProperty("card", true); }

namespace {

// In the ink of whatever theme is in force.
class CloseButton : public QToolButton {
 public:
  explicit CloseButton(QWidget* parent) : QToolButton(parent) { redraw(); }

 protected:
  void changeEvent(QEvent* event) override {
    if (event->type() == QEvent::PaletteChange) redraw();
    QToolButton::changeEvent(event);
  }

 private:
  void redraw() { setIcon(uq::icon(QStringLiteral("close"), Theme::current().ink)); }
};

}  // namespace

QLayout* makeCardHead(QFrame* card, QWidget* title, const char* closeName) {
  auto* close = new CloseButton(card);
  close->setObjectName(QLatin1String(closeName));
  close->setAccessibleName(QCoreApplication::translate("cards", "Close the card"));
  close->setToolTip(QCoreApplication::translate("cards", "Close the card (Esc)"));
  close->setFocusPolicy(Qt::TabFocus);
  QObject::connect(close, &QToolButton::clicked, card, &QWidget::hide);
  auto* head = new QHBoxLayout;
  head->addWidget(title, 1);
  head->addWidget(close);
  return head;
}

QVBoxLayout* makeSection(QWidget* part) {
  auto* layout = new QVBoxLayout(part);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  return layout;
}

QLabel* makeTitle(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  QFont font = label->font();
  font.setBold(true);
  label->setFont(font);
  return label;
}

QLabel* makeSoftLabel(QWidget* parent) {
  auto* label = new QLabel(parent);
  label->setWordWrap(true);
  label->setProperty("soft", true);
  return label;
}

QString onButton(QString name) { return name.replace(QLatin1Char('&'), QLatin1String("&&")); }

QToolButton* makeActionButton(QAction* action, const QString& text, QWidget* parent) {
  auto* button = new QToolButton(parent);
  button->setObjectName(action->objectName() + QStringLiteral("-button"));
  button->setFocusPolicy(Qt::TabFocus);
  button->setIcon(action->icon());
  button->setIconSize({18, 18});
  button->setText(text);
  button->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  const auto follow = [button, action] {
    button->setIcon(action->icon());
    button->setEnabled(action->isEnabled());
    button->setToolTip(action->toolTip());
    button->setAccessibleName(action->text().section(QLatin1Char('\t'), 0, 0).remove(QLatin1Char('&')));
  };
  QObject::connect(action, &QAction::changed, button, follow);
  QObject::connect(button, &QToolButton::clicked, action, &QAction::trigger);
  follow();
  return button;
}

QToolButton* makePlainButton(const char* object, QWidget* parent) {
  auto* button = new QToolButton(parent);
  button->setObjectName(QLatin1String(object));
  button->setProperty("raised", true);
  button->setFocusPolicy(Qt::TabFocus);
  return button;
}

QString sizeText(PixelSize size) {
  return size.w == size.h ? QString::number(size.w) : QStringLiteral("%1 × %2").arg(size.w).arg(size.h);
}

}  // namespace uq
