// Large values, shared among copies until one of them changes its own. So a copy of a build or a shelf costs a few
// counters however much it holds, and an undo step keeps only what its edit changed.
#pragma once

#include <array>
#include <atomic> // <compare> comes with <array>: named by itself it trips moc 6.4
#include <cstddef>
#include <initializer_list>
#include <iterator>
#include <memory>
#include <utility>
#include <vector>

namespace mavrel {

/// A value that copies by reference and changes by copy. Copies may be read from several threads at once; one copy is
/// one thread's own. A struct may hold one of a type that is only named: `extern template class Shared<T>` beside it,
/// and `template class Shared<T>` where T is known; its members are then compiled there alone.
template <class T>
class Shared {
public:
  Shared();
  Shared(T value); // NOLINT: stands in for its value

  [[nodiscard]] const T& operator*() const { return *held_; }
  [[nodiscard]] const T* operator->() const { return held_.get(); }
  /// This copy's own, to be changed; valid until the next copy is taken.
  [[nodiscard]] T& own();
  /// To be kept where no copy of it will change it any more.
  [[nodiscard]] std::shared_ptr<const T> pointer() const { return held_; }
  /// Do both refer to one and the same value, so that they are equal without a look?
  [[nodiscard]] bool same(const Shared& other) const { return held_ == other.held_; }
  [[nodiscard]] bool equals(const Shared& other) const;
  friend bool operator==(const Shared& a, const Shared& b) { return a.same(b) || a.equals(b); }

private:
  std::shared_ptr<T> held_;
};

template <class T>
Shared<T>::Shared() : held_(std::make_shared<T>()) {}
template <class T>
Shared<T>::Shared(T value) : held_(std::make_shared<T>(std::move(value))) {}
template <class T>
T& Shared<T>::own() {
  if (held_.use_count() > 1)
    held_ = std::make_shared<T>(*held_);
  else // whoever gave it up last, perhaps in another thread, has read it to the end
    std::atomic_thread_fence(std::memory_order_acquire);
  return *held_;
}
template <class T>
bool Shared<T>::equals(const Shared& other) const {
  return *held_ == *other.held_;
}

/// What a visitor of fields goes on with: the value itself, or what is shared, made this copy's own if it may change.
template <class T>
[[nodiscard]] T& opened(T& value) {
  return value;
}
template <class T>
[[nodiscard]] const T& opened(const Shared<T>& value) {
  return *value;
}
template <class T>
[[nodiscard]] T& opened(Shared<T>& value) {
  return value.own();
}

/// Elements that are shared each for itself. Reads like the plain container; an element is made this copy's own when it
/// is reached through one that is not const.
template <class T, class Storage>
class SharedElements {
public:
  using value_type = T;
  template <class Of, class Element>
  class Iterator {
  public:
    using difference_type = std::ptrdiff_t;
    using value_type = T;
    using reference = Element&;
    using pointer = Element*;
    using iterator_category = std::random_access_iterator_tag;
    Iterator() = default;
    Iterator(Of* of, std::ptrdiff_t at) : of_(of), at_(at) {}
    Element& operator*() const { return (*of_)[static_cast<std::size_t>(at_)]; }
    Element* operator->() const { return &**this; }
    Element& operator[](std::ptrdiff_t n) const { return *(*this + n); }
    Iterator& operator+=(std::ptrdiff_t n) { return at_ += n, *this; }
    Iterator& operator-=(std::ptrdiff_t n) { return at_ -= n, *this; }
    Iterator& operator++() { return *this += 1; }
    Iterator& operator--() { return *this -= 1; }
    Iterator operator++(int) { return std::exchange(*this, *this + 1); }
    Iterator operator--(int) { return std::exchange(*this, *this - 1); }
    friend Iterator operator+(Iterator it, std::ptrdiff_t n) { return it += n; }
    friend Iterator operator+(std::ptrdiff_t n, Iterator it) { return it += n; }
    friend Iterator operator-(Iterator it, std::ptrdiff_t n) { return it -= n; }
    friend std::ptrdiff_t operator-(const Iterator& a, const Iterator& b) { return a.at_ - b.at_; }
    friend bool operator==(const Iterator& a, const Iterator& b) { return a.at_ == b.at_; }
    friend auto operator<=>(const Iterator& a, const Iterator& b) { return a.at_ <=> b.at_; }
    [[nodiscard]] std::ptrdiff_t place() const { return at_; }

  private:
    Of* of_ = nullptr;
    std::ptrdiff_t at_ = 0;
  };
  using iterator = Iterator<SharedElements, T>;
  using const_iterator = Iterator<const SharedElements, const T>;

  [[nodiscard]] const T& operator[](std::size_t i) const { return *held_[i]; }
  [[nodiscard]] T& operator[](std::size_t i) { return held_[i].own(); }
  [[nodiscard]] const Shared<T>& shared(std::size_t i) const { return held_[i]; }
  [[nodiscard]] Shared<T>& shared(std::size_t i) { return held_[i]; }
  [[nodiscard]] std::size_t size() const { return held_.size(); }
  [[nodiscard]] const_iterator begin() const { return {this, 0}; }
  [[nodiscard]] const_iterator end() const { return {this, static_cast<std::ptrdiff_t>(size())}; }
  [[nodiscard]] iterator begin() { return {this, 0}; }
  [[nodiscard]] iterator end() { return {this, static_cast<std::ptrdiff_t>(size())}; }
  friend bool operator==(const SharedElements&, const SharedElements&) = default;

protected:
  Storage held_;
};

/// A list whose elements are shared, each until it is changed.
template <class T>
class List : public SharedElements<T, std::vector<Shared<T>>> {
public:
  List() = default;
  List(std::initializer_list<T> values) { this->held_.assign(values.begin(), values.end()); }

  [[nodiscard]] bool empty() const { return this->held_.empty(); }
  [[nodiscard]] const T& front() const { return *this->held_.front(); }
  [[nodiscard]] T& front() { return this->held_.front().own(); }
  [[nodiscard]] const T& back() const { return *this->held_.back(); }
  [[nodiscard]] T& back() { return this->held_.back().own(); }
  void clear() { this->held_.clear(); }
  void resize(std::size_t count) { this->held_.resize(count); }
  void push_back(T value) { this->held_.emplace_back(std::move(value)); }
  T& emplace_back() { return this->held_.emplace_back().own(); }
  template <class It>
  void erase(It at) {
    this->held_.erase(this->held_.begin() + at.place());
  }
  /// Takes an element over as it is, still shared.
  void share(Shared<T> value) { this->held_.push_back(std::move(value)); }
};

/// Removes every element that `is_bad` says so of.
template <class T, class Test>
void erase_if(List<T>& list, const Test& is_bad) {
  List<T> kept;
  for (std::size_t i = 0; i < list.size(); ++i)
    if (!is_bad(std::as_const(list)[i])) kept.share(list.shared(i));
  list = std::move(kept);
}

} // namespace mavrel
