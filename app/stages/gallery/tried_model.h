#pragma once
/// Every place that was tried, a row each: sorted by any column.

#include "app/view/context.h"
#include "core/advice/advice.h"

#include <QAbstractTableModel>

namespace vetchling::app {

class TriedModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum Column { Rank, Name, Place, Wish, Score, Wire, Reason, columns };
    explicit TriedModel(ViewContext& context, QObject* parent = nullptr) : QAbstractTableModel(parent), m_context(context) {}
    void show(const advice::Advice& advice);
    [[nodiscard]] const std::vector<advice::Row>& rows() const { return m_rows; }
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(m_rows.size()); }
    [[nodiscard]] int columnCount(const QModelIndex& = {}) const override { return columns; }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    void sort(int column, Qt::SortOrder order) override;

private:
    ViewContext& m_context;
    std::vector<advice::Row> m_rows;
};

} // namespace vetchling::app
