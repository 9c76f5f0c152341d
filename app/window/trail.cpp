#include "app/window/trail.h"

#include "app/view/sketch.h"

#include <QPainter>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int stemX = 30, wordsX = 60; // px
constexpr double widestPitch = 82.0;

/// One leaf with its name and live line.
class LeafDelegate final : public QStyledItemDelegate {
public:
    LeafDelegate(const ViewContext& context, Trail* view) : QStyledItemDelegate(view), m_context(context), m_view(view) {}

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override
    {
        const double room = m_view->viewport()->height() - 8.0;
        return {m_view->width() - 2, int(std::min(widestPitch, room / std::max(1, index.model()->rowCount())))};
    }

    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override
    {
        const Colours& c = m_context.theme.colours();
        const bool current = option.state & QStyle::State_Selected;
        const QRectF item = QRectF(option.rect).adjusted(8, 2, 8, -2);
        painter->save();
        Sketch sketch(*painter, m_context.theme);
        if (current) {
            painter->setPen(m_view->hasFocus() ? QPen(c.leaf, 1.5) : QPen(Qt::NoPen));
            painter->setBrush(c.paper);
            painter->drawRoundedRect(item, 6, 6);
        }
        const bool first = index.row() == 0, last = index.row() + 1 == index.model()->rowCount();
        sketch.line({stemX, option.rect.top() + (first ? 10.0 : 0.0)}, {stemX, option.rect.bottom() + (last ? -6.0 : 1.0)}, c.leafMid, 2.0);
        const double middle = option.rect.center().y();
        sketch.leaf({stemX, middle + 2.0}, current);
        if (!m_view->narrow())
            paintWords(sketch, index, middle);
        paintNumber(sketch, index, middle);
        painter->restore();
    }

private:
    /// Beside the name, or at the leaf where there is none.
    void paintNumber(Sketch& sketch, const QModelIndex& index, double middle) const
    {
        const int number = index.data(StageList::Number).toInt();
        if (number <= 0)
            return;
        const Colours& c = m_context.theme.colours();
        const bool red = !index.data(StageList::Alarm).toString().isEmpty();
        const QString words = QString::number(number);
        const double high = 16.0, wide = std::max(high, m_context.theme.typeset(words, 11, true).size.width() + 9.0);
        const double right = m_view->narrow() ? Trail::narrowWidth - 4.0 : Trail::usualWidth - 16.0;
        const QRectF pill(right - wide, middle - 18.5, wide, high);
        sketch.painter().setPen(Qt::NoPen);
        sketch.painter().setBrush(red ? c.brick : c.leaf);
        sketch.painter().drawRoundedRect(pill, 0.5 * high, 0.5 * high);
        sketch.text(pill.center(), words, Qt::AlignCenter, {c.paper, 11, true});
    }

    void paintWords(Sketch& sketch, const QModelIndex& index, double middle) const
    {
        const Colours& c = m_context.theme.colours();
        sketch.text({wordsX, middle - 20.0}, index.data().toString(), Qt::AlignLeft | Qt::AlignTop, {c.ink, 15, true});
        const QString alarm = index.data(StageList::Alarm).toString(),
                      said = alarm.isEmpty() ? index.data(StageList::Summary).toString() : alarm;
        const QString words = m_context.theme.elided(said, Trail::usualWidth - wordsX - 6.0, 12);
        sketch.text({wordsX, middle + 1.0}, words, Qt::AlignLeft | Qt::AlignTop,
                    {alarm.isEmpty() ? c.inkSoft : c.brick, 12, !alarm.isEmpty()});
    }

    const ViewContext& m_context;
    Trail* m_view;
};

} // namespace

StageList::StageList(std::vector<Stage*> stages, QObject* parent) : QAbstractListModel(parent), m_stages(std::move(stages)) {}

int StageList::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(m_stages.size()); }

QVariant StageList::data(const QModelIndex& index, int role) const
{
    if (!index.isValid() || index.row() >= rowCount())
        return {};
    const Stage& stage = *m_stages[std::size_t(index.row())];
    switch (role) {
    case Qt::DisplayRole: return stage.name();
    case Summary: return stage.summary();
    case Alarm: return stage.alarm();
    case Number: return stage.number();
    case Qt::ToolTipRole:
    case Qt::AccessibleTextRole:
        return stage.alarm().isEmpty() ? tr("%1: %2").arg(stage.name(), stage.summary())
                                       : tr("%1: %2; %3").arg(stage.name(), stage.alarm(), stage.summary());
    default: return {};
    }
}

void StageList::refresh() { emit dataChanged(index(0), index(rowCount() - 1), {Summary, Qt::ToolTipRole, Qt::AccessibleTextRole}); }

Trail::Trail(ViewContext& context, std::vector<Stage*> stages, QWidget* parent)
    : QListView(parent), m_context(context), m_list(new StageList(std::move(stages), this))
{
    setFixedWidth(usualWidth);
    setObjectName(QStringLiteral("trail"));
    setAccessibleName(tr("Stages of the work"));
    setFrameShape(QFrame::NoFrame);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setEditTriggers(NoEditTriggers);
    setResizeMode(Adjust);
    setModel(m_list);
    setItemDelegate(new LeafDelegate(context, this));
}

void Trail::setNarrow(bool narrow)
{
    m_narrow = narrow;
    setFixedWidth(narrow ? narrowWidth : usualWidth);
    scheduleDelayedItemsLayout();
}

void Trail::setCurrent(int index)
{
    if (index != current())
        setCurrentIndex(m_list->index(index));
}

void Trail::currentChanged(const QModelIndex& now, const QModelIndex& before)
{
    QListView::currentChanged(now, before);
    if (now.isValid())
        emit chosen(now.row());
}

void Trail::paintEvent(QPaintEvent* event)
{
    {
        QPainter painter(viewport());
        painter.fillRect(viewport()->rect(), m_context.theme.colours().panel);
        painter.fillRect(QRect(viewport()->width() - 1, 0, 1, viewport()->height()), m_context.theme.colours().hairline);
    }
    QListView::paintEvent(event);
}

} // namespace vetchling::app
