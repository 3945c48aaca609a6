// TrialCard: a card that shows on the canvas at once what it says, as one gesture: Enter or its button makes it a step,
// Esc leaves no trace. Where something else ends the gesture, or takes the keyboard, the card closes. Threads: the
// interface's.
#pragma once

#include "app/look/Card.h"
#include "app/workroom/Session.h"

class QHBoxLayout;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace uq {

class TrialCard : public Card {
  Q_OBJECT

 public:
  void setSession(Session* session);

 Q_SIGNALS:
  void closed();

 protected:
  // `name` begins the names of its parts; `makes` is said on its button.
  TrialCard(const char* name, int width, const QString& makes, QWidget* parent);

  // Where the content goes, between the title and what is told; and how the card is called.
  QVBoxLayout* content() const { return content_; }
  void setTitle(const QString& title);
  // Begins the gesture of the open map and shows the card in a corner; false where the map cannot be changed, which is
  // told.
  [[nodiscard]] bool begin(const std::string& step);
  // Whether its gesture is under way.
  bool holds() const;
  // The open map before the gesture, and its quilt; while it holds.
  const Quilt& before() const { return session_->work().gesture()->before(); }
  const Map& mapBefore() const { return *before().map(session_->desk().map); }
  // Shows what would become of the quilt, and says so; or says why that cannot be.
  void tryOut(Quilt after, const QString& words);
  void refuse(const std::string& why);
  Session* session() const { return session_; }

  void keyPressEvent(QKeyEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  void leave(bool makes);

  Session* session_ = nullptr;
  std::uint64_t gesture_ = 0;
  QLabel* title_;
  QVBoxLayout* content_;
  QLabel* told_;
  QPushButton* make_;
};

}  // namespace uq
