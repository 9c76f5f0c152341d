#include "app/widgets/table.h"

#include <QHeaderView>

namespace vetchling::app {

Table::Table(QAbstractItemModel* model, std::vector<double> shares, QWidget* parent) : QTableView(parent), m_shares(std::move(shares))
{
    setModel(model);
    setShowGrid(false);
    setFrameShape(QFrame::NoFrame);
    setSelectionBehavior(SelectRows);
    setSelectionMode(SingleSelection);
    setEditTriggers(NoEditTriggers);
    setTabKeyNavigation(false);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(tableRowHeight);
    verticalHeader()->setMinimumSectionSize(tableRowHeight);
    horizontalHeader()->setFixedHeight(tableHeaderHeight);
    horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    horizontalHeader()->setHighlightSections(false);
    horizontalHeader()->setSectionsClickable(false);
    horizontalHeader()->setStretchLastSection(true);
}

int Table::fullHeight() const { return tableHeaderHeight + tableRowHeight * model()->rowCount() + 2; }

void Table::resizeEvent(QResizeEvent* event)
{
    QTableView::resizeEvent(event);
    for (std::size_t i = 0; i + 1 < m_shares.size(); ++i)
        setColumnWidth(int(i), int(m_shares[i] * viewport()->width()));
}

} // namespace vetchling::app
