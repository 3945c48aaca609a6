#include "app/look/Widgets.h"

#include <QAction>
#include <QEvent>
#include <QHBoxLayout>

#include "app/look/Icons.h"
#include "app/look/Theme.h"

namespace uq {

void makeCard(QFrame* frame) { frame->setProperty("card", true); }

namespace {

// Draws the icon of its parent anew when the theme changes.
class InkedIcon : public QObject {
 public:
  InkedIcon(QToolButton* button, QString name) : QObject(button), button_(button), name_(std::move(name)) {
    button->installEventFilter(this);
    redraw();
  }

 protected:
  bool eventFilter(QObject*, QEvent* event) override {
    if (event->type() == QEvent::PaletteChange) redraw();
    return false;
  }

 private:
  void redraw() { button_->setIcon(uq::icon(name_, Theme::current().ink)); }
  QToolButton* button_;
  QString name_;
};

}  // namespace

void setInkedIcon(QToolButton* button, const QString& name) { new InkedIcon(button, name); }

QLayout* makeCardHead(QFrame* card, QWidget* title, const char* closeName) {
  auto* close = new QToolButton(card);
  setInkedIcon(close, QStringLiteral("close"));
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
