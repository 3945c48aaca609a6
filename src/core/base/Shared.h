// Shared<T>: a value that copies in constant time.
//
// The whole document is built from Shared parts, so that keeping an old quilt for undo costs a few pointers, not a
// copy. Copying a Shared copies a pointer and raises a count; the T inside is never changed while anybody else can see
// it. `read()` looks, `edit(f)` changes:
//
//   Shared<Map> old = map;
//   map.edit([](Map& m) { m.name = "Ferry Street"; });   // `old` still reads "Depot Yard"
//
// Invariants: a T that two Shareds see is immutable. No mutable reference outlives an edit: `f` returns nothing, and
// keeping the reference it was given would change history. A blank Shared (default-made) reads as T{} and owns nothing.
// Cost: copy and drop are one atomic operation; edit copies the T only when somebody else holds it.
// A T that names a `Pool` (allocate, release) gets its memory there.
// Threads: distinct Shareds that share a T may be copied, read, edited and dropped on different threads.
#pragma once

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <type_traits>
#include <utility>

namespace uq {

template <class T>
class Shared {
 public:
  Shared() noexcept = default;
  explicit Shared(T value) : node_(new Node(std::move(value))) {}
  // Made of its parts where it stays, for a T that is large and would be copied on its way.
  template <class... Parts>
  explicit Shared(std::in_place_t, Parts&&... parts) : node_(new Node(std::in_place, std::forward<Parts>(parts)...)) {}
  Shared(const Shared& other) noexcept : node_(other.node_) {
    if (node_) node_->owners.fetch_add(1, std::memory_order_relaxed);
  }
  Shared(Shared&& other) noexcept : node_(std::exchange(other.node_, nullptr)) {}
  Shared& operator=(Shared other) noexcept {
    std::swap(node_, other.node_);
    return *this;
  }
  ~Shared() {
    if (node_ && node_->owners.fetch_sub(1, std::memory_order_acq_rel) == 1) delete node_;
  }

  // The value; valid until this Shared is edited, assigned or dropped.
  const T& read() const noexcept {
    static const T blank{};
    return node_ ? node_->value : blank;
  }
  const T* operator->() const noexcept { return &read(); }

  // Calls f(T&) on a value that nobody else sees, copying it first where needed.
  template <class F>
  void edit(F&& f) {
    static_assert(std::is_void_v<std::invoke_result_t<F, T&>>, "an edit hands nothing out");
    if (!node_) {
      node_ = new Node(T{});
    } else if (node_->owners.load(std::memory_order_acquire) != 1) {
      Shared own;
      own.node_ = new Node(std::as_const(node_->value));
      *this = std::move(own);
    }
    std::forward<F>(f)(node_->value);
  }

  bool isBlank() const noexcept { return node_ == nullptr; }

  // True when both are one and the same storage; false proves nothing about the contents.
  bool sameAs(const Shared& other) const noexcept { return node_ == other.node_; }

  friend bool operator==(const Shared& a, const Shared& b) { return a.node_ == b.node_ || a.read() == b.read(); }

 private:
  struct Plain {};
  struct Pooled {
    static void* operator new(std::size_t bytes) { return T::Pool::allocate(bytes); }
    static void operator delete(void* node) noexcept { T::Pool::release(node); }
  };
  static constexpr bool kPooled = requires { typename T::Pool; };

  struct Node : std::conditional_t<kPooled, Pooled, Plain> {
    explicit Node(T&& v) : value(std::move(v)) {}
    explicit Node(const T& v) : value(v) {}
    template <class... Parts>
    explicit Node(std::in_place_t, Parts&&... parts) : value{std::forward<Parts>(parts)...} {}
    std::atomic<std::uint32_t> owners{1};
    T value;
  };
  Node* node_ = nullptr;
};

}  // namespace uq
