#pragma once
/// The left column: the stages as leaves on one stem, each with its live line.

#include "app/stages/stage.h"

#include <QAbstractListModel>
#include <QListView>
#include <QStyledItemDelegate>

namespace vetchling::app {

/// Names and live lines of the stages.
class StageList : public QAbstractListModel {
    Q_OBJECT
public:
    enum Role { Summary = Qt::UserRole, Alarm, Number };
    StageList(std::vector<Stage*> stages, QObject* parent = nullptr);
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    void refresh();

private:
    std::vector<Stage*> m_stages;
};

class Trail : public QListView {
    Q_OBJECT
public:
    static constexpr int usualWidth = 196, narrowWidth = 60; ///< px
    Trail(ViewContext& context, std::vector<Stage*> stages, QWidget* parent = nullptr);
    void setCurrent(int index);
    [[nodiscard]] int current() const { return currentIndex().row(); }
    void refresh() { m_list->refresh(); }
    /// Leaves alone, without words; their tips and screen readers still say them.
    void setNarrow(bool narrow);
    [[nodiscard]] bool narrow() const { return m_narrow; }

signals:
    void chosen(int index);

protected:
    void currentChanged(const QModelIndex& current, const QModelIndex& before) override;
    void paintEvent(QPaintEvent*) override;

private:
    ViewContext& m_context;
    StageList* m_list;
    bool m_narrow = false;
};

} // namespace vetchling::app
