#pragma once
/// The cut list as a table.

#include "core/units/units.h"
#include "core/workshop/cut_list.h"

#include <QAbstractTableModel>

#include <vector>

namespace vetchling::app {

class CutListModel : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    enum Column { Name, Pieces, Radiating, Ends, Margin, CutTo, columnCountOfAll };

    void setRows(std::vector<CutRow> rows, units::System system);
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    [[nodiscard]] QString cell(const CutRow& row, int column) const;
    std::vector<CutRow> m_rows;
    units::System m_system = units::System::Metric;
};

} // namespace vetchling::app
