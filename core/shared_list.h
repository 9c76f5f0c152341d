#pragma once
/// A list that its copies share: it is given anew, never changed in place, so that five hundred states of a design hold it once.

#include <cstddef>
#include <initializer_list>
#include <memory>
#include <utility>
#include <vector>

namespace vetchling {

template <class T> class SharedList {
public:
    SharedList() = default;
    SharedList(std::vector<T> list) : m_list(list.empty() ? nullptr : std::make_shared<const std::vector<T>>(std::move(list))) {}
    SharedList(std::initializer_list<T> list) : SharedList(std::vector<T>(list)) {}

    [[nodiscard]] const std::vector<T>& list() const
    {
        static const std::vector<T> none;
        return m_list ? *m_list : none;
    }
    [[nodiscard]] bool empty() const { return list().empty(); }
    [[nodiscard]] std::size_t size() const { return list().size(); }
    [[nodiscard]] const T& operator[](std::size_t i) const { return list()[i]; }
    [[nodiscard]] const T& front() const { return list().front(); }
    [[nodiscard]] const T& back() const { return list().back(); }
    [[nodiscard]] auto begin() const { return list().begin(); }
    [[nodiscard]] auto end() const { return list().end(); }

    friend bool operator==(const SharedList& a, const SharedList& b) { return a.m_list == b.m_list || a.list() == b.list(); }

private:
    std::shared_ptr<const std::vector<T>> m_list; ///< null: empty
};

} // namespace vetchling
