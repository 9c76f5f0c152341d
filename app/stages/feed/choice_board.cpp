#include "app/stages/feed/choice_board.h"

#include "app/view/feed_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double head = 44.0, summary = 136.0;

} // namespace

ChoiceBoard::ChoiceBoard(ViewContext& context, FeedDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("choiceBoard"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(330);
    setAccessibleName(tr("Choices for the chain, by band"));
}

void ChoiceBoard::setChoice(FeedDesk::Choice choice)
{
    m_choice = choice;
    m_chosen.reset();
    m_picked = false;
    m_desk.wantChoices(choice);
    refresh();
}

int ChoiceBoard::row() const
{
    const auto& rows = m_desk.choices(m_choice);
    for (std::size_t i = 0; m_chosen && i < rows.size(); ++i)
        if (rows[i].sameChoice(*m_chosen))
            return int(i);
    return -1;
}

const study::ChoiceRow* ChoiceBoard::chosen() const
{
    const int place = row();
    return place >= 0 ? &m_desk.choices(m_choice)[std::size_t(place)] : nullptr;
}

void ChoiceBoard::choose(int row)
{
    m_chosen = m_desk.choices(m_choice)[std::size_t(row)];
    m_picked = true;
    update();
    emit rowChosen();
}

void ChoiceBoard::refresh()
{
    if (row() < 0 || !m_picked) { // what is best changes with the chain
        m_chosen.reset();
        m_picked = false;
        for (const study::ChoiceRow& choice : m_desk.choices(m_choice))
            if (choice.best)
                m_chosen = choice;
    }
    update();
}

ChoiceBoard::Layout ChoiceBoard::layoutOf(const QSizeF& size) const
{
    const auto& rows = m_desk.choices(m_choice);
    Layout out;
    out.top = head;
    out.name = m_choice == FeedDesk::Choice::Line || m_choice == FeedDesk::Choice::Chain ? 168.0 : 108.0;
    const std::size_t bands = rows.empty() ? 1 : std::max<std::size_t>(1, rows.front().cells.size());
    out.cell = (size.width() - out.name - summary) / double(bands);
    out.step = std::clamp((size.height() - head - 8.0) / double(std::max<std::size_t>(1, rows.size())), 24.0, 46.0);
    return out;
}

void ChoiceBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    const auto& rows = m_desk.choices(m_choice);
    if (rows.empty()) {
        const QString words =
            m_desk.report()
                ? (m_choice == FeedDesk::Choice::Capacitor ? tr("There is no transformer in this chain that a capacitor could stand at.")
                   : m_choice == FeedDesk::Choice::Line    ? tr("There is no line in this chain: add one on the page Losses.")
                                                           : tr("There is only the antenna: add parts on the page Losses."))
            : m_desk.busy() || m_context.solver.busy() ? tr("The fields on the wanted bands are being computed …")
                                                       : tr("Nothing is known of this antenna yet.");
        sketch.text({0.0, 20.0}, words, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    const Layout layout = layoutOf(size);
    paintHead(sketch, layout, size);
    for (std::size_t i = 0; i < rows.size(); ++i)
        paintRow(sketch, rows[i], int(i), layout, size);
}

void ChoiceBoard::paintHead(Sketch& sketch, const Layout& layout, const QSizeF& size) const
{
    const Colours& c = sketch.colours();
    const auto& row = m_desk.choices(m_choice).front();
    const QString what = m_choice == FeedDesk::Choice::Transformer || m_choice == FeedDesk::Choice::Capacitor ? tr("SWR behind it")
                         : m_choice == FeedDesk::Choice::Tuner                                                ? tr("SWR it meets")
                         : m_choice == FeedDesk::Choice::Line                                                 ? tr("SWR at its end")
                                                                                                              : tr("SWR at the tuner");
    sketch.text({0.0, 4.0}, what, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({0.0, 20.0}, tr("and loss in all, dB"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    for (std::size_t i = 0; i < row.cells.size(); ++i) {
        const WantedBand* band = findBand(m_context.document.design(), row.cells[i].band);
        sketch.text({layout.name + layout.cell * (double(i) + 0.5), 14.0}, band ? QString::fromStdString(band->band.name) : QString(),
                    Qt::AlignHCenter | Qt::AlignTop, {c.ink, 13, true});
    }
    sketch.text({size.width(), 4.0}, tr("bands served"), Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({size.width(), 20.0}, tr("and to the wire"), Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 12});
}

void ChoiceBoard::paintRow(Sketch& sketch, const study::ChoiceRow& row, int place, const Layout& layout, const QSizeF& size) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    const double y = layout.top + layout.step * place, height = layout.step - 3.0;
    const bool roomy = layout.step >= 36.0;
    const QRectF whole(0.0, y, size.width(), height);
    if (onScreen() && place == this->row()) {
        p.setPen(QPen(c.petal, 1.6));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(whole.adjusted(0.5, 0, -0.5, 0), 5, 5);
    } else {
        sketch.line({0.0, y + height + 1.5}, {size.width(), y + height + 1.5}, c.hairline);
    }
    const double middle = y + 0.5 * height;
    if (row.best)
        sketch.triangle({9.0, middle}, c.petal, c.ink);
    const QString name = feed::choiceName(row, int(m_choice), m_context.system());
    const QString tag = row.now ? tr("now") : row.best ? tr("best of these") : QString();
    sketch.text({20.0, roomy && !tag.isEmpty() ? middle - 8.0 : middle},
                sketch.theme().elided(name, layout.name - 24.0, 13, row.now || row.best), Qt::AlignLeft | Qt::AlignVCenter,
                {c.ink, 13, row.now || row.best});
    if (roomy && !tag.isEmpty())
        sketch.text({20.0, middle + 8.0}, tag, Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 12});
    for (std::size_t i = 0; i < row.cells.size(); ++i) {
        const study::ChoiceCell& cell = row.cells[i];
        const QRectF box(layout.name + layout.cell * double(i) + 3.0, y + 2.0, layout.cell - 6.0, height - 4.0);
        p.setPen(Qt::NoPen);
        const bool served = cell.served(), partly = cell.service.service == Service::Partly;
        p.setBrush(served ? c.leafPale : c.fill);
        p.drawRoundedRect(box, 3, 3);
        if (partly)
            p.fillRect(QRectF(box.left(), box.bottom() - 0.3 * box.height(), box.width(), 0.3 * box.height()), c.leafPale);
        if (!served && !partly) {
            QPainterPath area;
            area.addRoundedRect(box, 3, 3);
            sketch.hatch(area, c.hairline, 7.0);
        }
        const QString swr = swrText(cell.swr), loss = QString::number(std::min(cell.total(), 99.0), 'f', 1);
        const QColor paper = served ? c.leafPale : c.fill, below = served || partly ? c.leafPale : c.fill;
        const bool past = cell.total() > m_context.document.design().operation.lossLimit;
        if (roomy) {
            sketch.text({box.center().x(), middle - 8.0}, swr, Qt::AlignHCenter | Qt::AlignVCenter, {c.ink, 13, served, paper});
            sketch.text({box.center().x(), middle + 8.0}, loss, Qt::AlignHCenter | Qt::AlignVCenter,
                        {past ? c.brick : c.inkSoft, 12, false, below});
        } else {
            sketch.text({box.center().x(), middle}, QStringLiteral("%1 / %2").arg(swr, loss), Qt::AlignHCenter | Qt::AlignVCenter,
                        {past ? c.brick : c.ink, 12, served, paper});
        }
    }
    const QString sum = row.tally.partly > 0 ? tr("%1 of %2, %3 in part").arg(row.tally.served).arg(row.tally.wished).arg(row.tally.partly)
                                             : tr("%1 of %2").arg(row.tally.served).arg(row.tally.wished);
    const QString watts = feed::wattWords(m_context.document.design().operation.power * row.arriving);
    const QString price = m_choice == FeedDesk::Choice::Line && row.price > 0.0 ? tr(", price %1").arg(row.price, 0, 'f', 0) : QString();
    if (roomy) {
        sketch.text({size.width() - 6.0, middle - 8.0}, sum, Qt::AlignRight | Qt::AlignVCenter, {c.ink, 13, true});
        sketch.text({size.width() - 6.0, middle + 8.0}, watts + price, Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    } else {
        sketch.text({size.width() - 6.0, middle}, sum + QStringLiteral("  ") + watts, Qt::AlignRight | Qt::AlignVCenter, {c.ink, 12});
    }
}

std::vector<QStringList> ChoiceBoard::cells() const
{
    const auto& rows = m_desk.choices(m_choice);
    std::vector<QStringList> out{{QString()}};
    if (rows.empty())
        return {};
    for (const study::ChoiceCell& cell : rows.front().cells) {
        const QString band = feed::bandList(m_context.document.design(), {cell.band});
        out.front() << tr("%1 SWR").arg(band) << tr("%1 dB").arg(band);
    }
    out.front() << tr("served") << tr("in part") << tr("W to the wire");
    for (const study::ChoiceRow& row : rows) {
        QStringList line{feed::choiceName(row, int(m_choice), m_context.system())};
        for (const study::ChoiceCell& cell : row.cells)
            line << swrText(cell.swr) << QString::number(cell.total(), 'f', 2);
        line << QString::number(row.tally.served) << QString::number(row.tally.partly)
             << QString::number(m_context.document.design().operation.power * row.arriving, 'f', 1);
        out.push_back(line);
    }
    return out;
}

int ChoiceBoard::rowAt(QPointF p) const
{
    const Layout layout = layoutOf(size());
    const int row = int(std::floor((p.y() - layout.top) / layout.step));
    return row >= 0 && row < int(m_desk.choices(m_choice).size()) ? row : -1;
}

void ChoiceBoard::mousePressEvent(QMouseEvent* event)
{
    if (const int row = rowAt(event->position()); row >= 0)
        choose(row);
}

void ChoiceBoard::mouseDoubleClickEvent(QMouseEvent* event)
{
    if (const int row = rowAt(event->position()); row >= 0)
        m_desk.take(m_choice, study::ChoiceRow(m_desk.choices(m_choice)[std::size_t(row)]));
}

void ChoiceBoard::keyPressEvent(QKeyEvent* event)
{
    const int count = int(m_desk.choices(m_choice).size());
    if ((event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) && count > 0)
        choose(std::clamp(row() + (event->key() == Qt::Key_Up ? -1 : 1), 0, count - 1));
    else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && m_chosen)
        m_desk.take(m_choice, study::ChoiceRow(*m_chosen));
    else
        Canvas::keyPressEvent(event);
}

} // namespace vetchling::app
