#include "app/widgets/table.h"

#include <QHeaderView>
#include <QStyledItemDelegate>

#include <algorithm>

namespace vetchling::app {
namespace {

/// Words of a cell below those of its header: without the margin that styles keep free for a frame of focus.
class FlushDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override
    {
        QStyleOptionViewItem flush = option;
        flush.rect.adjust(-frameMargin, 0, 0, 0);
        QStyledItemDelegate::paint(painter, flush, index);
    }

private:
    static constexpr int frameMargin = 3; // px
};

} // namespace

Table::Table(QAbstractItemModel* model, std::vector<double> shares, QWidget* parent) : QTableView(parent), m_shares(std::move(shares))
{
    setModel(model);
    setItemDelegate(new FlushDelegate(this));
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
    horizontalHeader()->setMinimumSectionSize(16);
}

int Table::fullHeight() const { return tableHeaderHeight + tableRowHeight * model()->rowCount() + 2; }

void Table::resizeEvent(QResizeEvent* event)
{
    QTableView::resizeEvent(event);
    int rest = viewport()->width();
    for (std::size_t i = 0; i + 1 < m_shares.size(); ++i) {
        setColumnWidth(int(i), int(m_shares[i] * viewport()->width()));
        rest -= columnWidth(int(i));
    }
    setColumnWidth(int(m_shares.size()) - 1, rest);
}

int tableRowsThatFit(double top, double bottom) { return std::max(1, int((bottom - top - tableHeaderHeight + 2.0) / tableRowHeight)); }

double paintTable(Sketch& sketch, const QAbstractItemModel& model, const std::vector<double>& shares, double top, double width,
                  double bottom, int first)
{
    const Colours& c = sketch.colours();
    std::vector<double> left(shares.size());
    for (std::size_t i = 1; i < shares.size(); ++i)
        left[i] = left[i - 1] + shares[i - 1] * width;
    const int columns = std::min(model.columnCount(), int(shares.size()));
    for (int i = 0; i < columns; ++i)
        sketch.text({left[std::size_t(i)], top}, model.headerData(i, Qt::Horizontal).toString(), Qt::AlignLeft | Qt::AlignTop,
                    {c.inkSoft, 12, true});
    double y = top + tableHeaderHeight - 2.0;
    sketch.line({0, y}, {width, y}, c.inkFaint, 1.5);
    const int fit = tableRowsThatFit(top, bottom), from = first >= 0 ? first : std::max(0, model.rowCount() - fit);
    for (int row = from; row < std::min(model.rowCount(), from + fit); ++row) {
        for (int i = 0; i < columns; ++i) {
            const QModelIndex cell = model.index(row, i);
            const double room = (i + 1 < columns ? left[std::size_t(i) + 1] : width) - left[std::size_t(i)] - 6.0;
            sketch.text({left[std::size_t(i)], y + 0.5 * tableRowHeight}, sketch.theme().elided(cell.data().toString(), room),
                        Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 13, cell.data(Qt::FontRole).value<QFont>().bold()});
        }
        y += tableRowHeight;
        sketch.line({0, y}, {width, y}, c.hairline);
    }
    return y;
}

} // namespace vetchling::app
