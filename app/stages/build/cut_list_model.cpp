#include "app/stages/build/cut_list_model.h"

#include "app/view/words.h"

#include <QFont>

namespace vetchling::app {

void CutListModel::setRows(std::vector<CutRow> rows, units::System system)
{
    beginResetModel();
    m_rows = std::move(rows);
    m_system = system;
    endResetModel();
}

int CutListModel::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(m_rows.size()); }
int CutListModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : columnCountOfAll; }

QString CutListModel::cell(const CutRow& row, int column) const
{
    switch (column) {
    case Name: return coreWords(row.name);
    case Pieces: return QString::number(row.pieces);
    case Radiating: return lengthWords(row.radiating, m_system);
    case Ends: return smallWords(row.ends, m_system);
    case Margin: return smallWords(row.margin, m_system);
    case CutTo: return lengthWords(row.cut, m_system);
    default: return {};
    }
}

QVariant CutListModel::data(const QModelIndex& index, int role) const
{
    if (!index.isValid() || index.row() >= rowCount())
        return {};
    if (role == Qt::DisplayRole)
        return cell(m_rows[std::size_t(index.row())], index.column());
    if (role == Qt::FontRole && index.column() == CutTo) {
        QFont bold;
        bold.setBold(true);
        return bold;
    }
    return {};
}

QVariant CutListModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    const QString heads[] = {tr("Cut"), tr("Pieces"), tr("Radiating"), tr("+ ends and folds"), tr("+ margin"), tr("Cut to")};
    return section < columnCountOfAll ? heads[section] : QString();
}

} // namespace vetchling::app
