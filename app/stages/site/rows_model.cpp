#include "app/stages/site/rows_model.h"

namespace vetchling::app {

void RowsModel::show(std::vector<QStringList> rows)
{
    if (rows == m_rows)
        return;
    beginResetModel();
    m_rows = std::move(rows);
    endResetModel();
}

QVariant RowsModel::data(const QModelIndex& index, int role) const
{
    if (role == Qt::DisplayRole || role == Qt::ToolTipRole) // long ones are cut short in their cell
        return m_rows[std::size_t(index.row())].value(index.column());
    if (role == Qt::TextAlignmentRole)
        return int(Qt::AlignVCenter | (index.column() == 0 ? Qt::AlignLeft : Qt::AlignRight));
    return {};
}

QVariant RowsModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal)
        return {};
    if (role == Qt::DisplayRole)
        return m_header.value(section);
    if (role == Qt::TextAlignmentRole)
        return int(Qt::AlignVCenter | (section == 0 ? Qt::AlignLeft : Qt::AlignRight));
    return {};
}

} // namespace vetchling::app
