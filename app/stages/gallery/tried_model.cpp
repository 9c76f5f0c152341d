#include "app/stages/gallery/tried_model.h"

#include "app/view/words.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

void TriedModel::show(const advice::Advice& advice)
{
    beginResetModel();
    m_rows = advice.rows;
    endResetModel();
}

QVariant TriedModel::data(const QModelIndex& index, int role) const
{
    const advice::Row& row = m_rows[std::size_t(index.row())];
    if (role == Qt::ToolTipRole && index.column() == Reason)
        return coreWords(row.reason, m_context.system());
    if (role != Qt::DisplayRole)
        return {};
    const auto percent = [&](double part) { return row.judged ? tr("%1 %").arg(std::lround(100.0 * part)) : QString(); };
    switch (index.column()) {
    case Rank: return row.rank > 0 ? QString::number(row.rank) : QString();
    case Name: return QString::fromStdString(row.name);
    case Place: return QString::fromStdString(row.place);
    case Wish: return percent(row.wish);
    case Score: return percent(row.score);
    case Wire: return row.judged ? lengthWords(row.wire, m_context.system(), 1) : QString();
    default:
        return row.reason.empty() ? row.exact ? tr("solved exactly") : tr("solved coarsely") : coreWords(row.reason, m_context.system());
    }
}

QVariant TriedModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    const QString names[] = {QString(), tr("antenna"), tr("place"), tr("wish"), tr("left"), tr("wire"), tr("how it came about")};
    return names[section];
}

void TriedModel::sort(int column, Qt::SortOrder order)
{
    const auto before = [&](const advice::Row& a, const advice::Row& b) {
        switch (column) {
        case Rank: return std::pair(a.rank == 0, a.rank) < std::pair(b.rank == 0, b.rank);
        case Name: return a.name < b.name;
        case Place: return a.place < b.place;
        case Wish: return a.wish < b.wish;
        case Score: return a.score < b.score;
        case Wire: return a.wire < b.wire;
        default: return a.reason.english() < b.reason.english();
        }
    };
    beginResetModel();
    std::stable_sort(m_rows.begin(), m_rows.end(),
                     [&](const advice::Row& a, const advice::Row& b) { return order == Qt::AscendingOrder ? before(a, b) : before(b, a); });
    endResetModel();
}

} // namespace vetchling::app
