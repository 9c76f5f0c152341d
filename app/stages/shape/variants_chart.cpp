#include "app/stages/shape/variants_chart.h"

#include "app/view/axis.h"
#include "app/view/board_table.h"
#include "app/view/sketch.h"
#include "app/view/spread_words.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double dipsHeight = 120.0, tableLeft = 4.0, variantNameWidth = 160.0;
constexpr std::size_t mostRows = 8; // of the table; the ledger has all

QPen penOf(std::size_t row, bool pinned, const Colours& c, double width)
{
    return pinned ? QPen(c.inkSoft, width, Qt::DotLine) : variantPen(row, c, width);
}

/// The horizontal direction in which the wires of a model reach farthest.
Vec3 longestInPlan(const WireModel& model)
{
    double xx = 0.0, xy = 0.0, yy = 0.0, mx = 0.0, my = 0.0, count = 0.0;
    const auto each = [&](const auto& f) {
        for (const Wire& w : model.wires)
            for (Vec3 p : w.points)
                f(p);
    };
    each([&](Vec3 p) { mx += p.x, my += p.y, count += 1.0; });
    each([&](Vec3 p) {
        const double x = p.x - mx / count, y = p.y - my / count;
        xx += x * x, xy += x * y, yy += y * y;
    });
    const double angle = 0.5 * std::atan2(2.0 * xy, xx - yy);
    return {std::cos(angle), std::sin(angle), 0.0};
}

} // namespace

VariantsChart::VariantsChart(ViewContext& context) : Canvas(context)
{
    setObjectName(QStringLiteral("variantsChart"));
    setAccessibleName(tr("Variants"));
    setAccessibleDescription(tr("Up and Down choose a variant"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(360);
}

void VariantsChart::show(std::shared_ptr<const std::vector<study::Compared>> rows, const Id& variant)
{
    m_rows = std::move(rows);
    m_variant = variant;
    update();
}

const WantedBand* VariantsChart::ownBand() const
{
    const Document& d = m_context.document;
    return findBand(d.design(), d.selectedBand());
}

double VariantsChart::tableTop(double height) const
{
    const std::size_t count = m_rows ? std::min(mostRows, m_rows->size()) : 1;
    return height - dipsHeight - BoardTable::heightOf(count) - 8.0;
}

QPointF VariantsChart::placeOf(std::size_t row) const
{
    return {tableLeft + 40.0, tableTop(height()) + BoardTable::headHeight + BoardTable::rowHeight * (double(row) + 0.5)};
}

void VariantsChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!m_rows || m_rows->empty()) {
        sketch.text({0.5 * size.width(), 60.0}, emptyWords(), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    const double table = tableTop(size.height());
    if (table > 90.0)
        paintShapes(sketch, {tableLeft, 4.0, size.width() - 2.0 * tableLeft, table - 12.0});
    paintTable(sketch, {tableLeft, table, size.width() - 2.0 * tableLeft, BoardTable::heightOf(std::min(mostRows, m_rows->size()))});
    paintDips(sketch, {tableLeft, size.height() - dipsHeight, size.width() - 2.0 * tableLeft, dipsHeight - 6.0});
}

QString VariantsChart::emptyWords() const
{
    return m_context.document.hasAntenna() ? tr("Being computed …") : tr("No antenna yet: add one with + at the top.");
}

void VariantsChart::paintShapes(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const auto first = std::find_if(m_rows->begin(), m_rows->end(), [](const study::Compared& r) { return r.built != nullptr; });
    if (first == m_rows->end())
        return;
    const Vec3 across = longestInPlan(first->built->model);
    double low = HUGE_VAL, high = -HUGE_VAL, top = 1.0;
    const auto each = [&](const study::Compared& row, const auto& f) {
        for (const Wire& wire : row.built ? row.built->model.wires : std::vector<Wire>())
            f(wire);
    };
    for (const study::Compared& row : *m_rows)
        if (row.antenna != "pinned") // it stands elsewhere
            each(row, [&](const Wire& wire) {
                for (Vec3 p : wire.points)
                    low = std::min(low, dot(p, across)), high = std::max(high, dot(p, across)), top = std::max(top, p.z);
            });
    const double scale = std::min((area.width() - 160.0) / std::max(high - low, 1.0), (area.height() - 26.0) / top);
    const double middle = 0.5 * (low + high), ground = area.bottom() - 10.0;
    const auto place = [&](Vec3 p) { return QPointF(area.center().x() + (dot(p, across) - middle) * scale, ground - p.z * scale); };
    sketch.line({area.left(), ground}, {area.right(), ground}, c.inkFaint);
    sketch.keepWithin(area);
    for (std::size_t i = m_rows->size(); i-- > 0;) {
        const study::Compared& row = (*m_rows)[i];
        if (row.antenna == "pinned")
            continue;
        const bool shown = row.variant == m_variant;
        const QPen pen = penOf(i, false, c, shown ? 2.6 : 1.6);
        QPointF leftmost(HUGE_VAL, 0.0);
        each(row, [&](const Wire& wire) {
            QPolygonF line;
            for (Vec3 p : wire.points)
                line << place(p);
            for (const QPointF& p : line)
                if (p.x() < leftmost.x())
                    leftmost = p;
            sketch.painter().setBrush(Qt::NoBrush);
            sketch.painter().setPen(pen);
            sketch.painter().drawPolyline(line);
        });
        if (leftmost.x() < HUGE_VAL)
            sketch.label(leftmost + QPointF(-6.0, 0.0), QString::fromStdString(row.name), Qt::AlignRight | Qt::AlignVCenter,
                         {pen.color(), 12, shown, c.paper});
    }
}

std::vector<VariantsChart::Column> VariantsChart::columns() const
{
    constexpr std::size_t mostBands = 4;
    const Operation& operation = m_context.document.design().operation;
    const auto figures = [&](const Id& band, std::size_t row) -> const study::Compared::BandFigures* {
        const auto found = (*m_rows)[row].bands.find(band);
        return found == (*m_rows)[row].bands.end() ? nullptr : &found->second;
    };
    std::vector<Column> all;
    const auto add = [&](const QString& title, const auto& cell) {
        Column column{title, {}, std::vector<bool>(m_rows->size(), false)};
        for (std::size_t i = 0; i < m_rows->size(); ++i)
            column.cells << cell(i, column.beyond);
        all.push_back(std::move(column));
    };
    const WantedBand* own = ownBand();
    std::vector<const WantedBand*> bands;
    for (Wish wish : {Wish::Must, Wish::Nice})
        for (const WantedBand& w : operation.bands)
            if (w.wish == wish && bands.size() < mostBands)
                bands.push_back(&w);
    std::sort(bands.begin(), bands.end(), [](const WantedBand* a, const WantedBand* b) { return a->band.from < b->band.from; });
    for (const WantedBand* w : bands)
        add(QString::fromStdString(w->band.name), [&](std::size_t i, std::vector<bool>& beyond) {
            const auto* f = figures(w->id, i);
            beyond[i] = f && f->lowestSwr > operation.swrLimit;
            return f ? (f->lowestSwr >= swrCap ? QStringLiteral(">9") : numberWords(f->lowestSwr, 2)) : QStringLiteral("–");
        });
    const auto ofOwn = [&](const QString& title, const auto& words) {
        add(title, [&](std::size_t i, std::vector<bool>&) {
            const auto* f = own ? figures(own->id, i) : nullptr;
            return f ? words(*f, (*m_rows)[i]) : QStringLiteral("–");
        });
    };
    using Figures = study::Compared::BandFigures;
    ofOwn(tr("width"), [](const Figures& f, const study::Compared&) {
        return f.width > 0.0 ? tr("%1 kHz").arg(f.width / 1e3, 0, 'f', 0) : QStringLiteral("–");
    });
    ofOwn(tr("%1°").arg(operation.aimElevation, 0, 'f', 0),
          [](const Figures& f, const study::Compared&) { return numberWords(f.gain, 1); });
    ofOwn(tr("up"), [](const Figures& f, const study::Compared&) {
        return f.straightUp > -40.0 ? numberWords(f.straightUp, 1) : QStringLiteral("–");
    });
    ofOwn(tr("lost"), [&](const Figures& f, const study::Compared&) { return tr("%1 W").arg(f.lost * operation.power, 0, 'f', 0); });
    add(tr("wire"), [&](std::size_t i, std::vector<bool>&) {
        return (*m_rows)[i].built ? lengthWords((*m_rows)[i].wire, m_context.system(), 1) : QStringLiteral("–");
    });
    add(tr("longest"), [&](std::size_t i, std::vector<bool>&) {
        return (*m_rows)[i].built ? lengthWords((*m_rows)[i].longestPiece, m_context.system(), 1) : QStringLiteral("–");
    });
    ofOwn(tr("dip within"), [&](const Figures&, const study::Compared& row) {
        const study::BandSpread* band = row.spread && own ? row.spread->band(own->id) : nullptr;
        const QString words = band ? toleranceWords(*band) : QString();
        return words.isEmpty() ? (row.spread ? QStringLiteral("–") : QStringLiteral("…")) : words;
    });
    return all;
}

/// Columns as wide as what stands in them, the room that is left shared out.
std::vector<double> VariantsChart::rightEdges(const Theme& theme, const std::vector<Column>& all, const QRectF& area)
{
    std::vector<double> wide;
    double sum = 0.0;
    for (const Column& column : all) {
        double most = QFontMetricsF(theme.font(12)).horizontalAdvance(column.title);
        for (const QString& cell : column.cells)
            most = std::max(most, QFontMetricsF(theme.font(12)).horizontalAdvance(cell));
        wide.push_back(most);
        sum += most;
    }
    const double gap = std::max(4.0, (area.width() - variantNameWidth - sum - 6.0) / double(all.size()));
    std::vector<double> right;
    double at = area.left() + variantNameWidth;
    for (double w : wide)
        right.push_back(at += gap + w);
    return right;
}

void VariantsChart::paintTable(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const std::vector<Column> all = columns();
    const std::size_t count = std::min(mostRows, m_rows->size());
    const std::vector<double> right = rightEdges(sketch.theme(), all, area);
    std::vector<BoardTable::Column> heads{{{}, 30.0}};
    for (std::size_t i = 0; i < all.size(); ++i)
        heads.push_back({all[i].title, right[i] - area.left(), Qt::AlignRight});
    BoardTable table(sketch, area.topLeft(), area.width(), heads);
    for (std::size_t row = 0; row < count; ++row) {
        const study::Compared& r = (*m_rows)[row];
        const bool pinned = r.antenna == "pinned", shown = !pinned && r.variant == m_variant;
        const QRectF line = table.begin(shown);
        const double y = line.center().y();
        sketch.painter().setPen(penOf(row, pinned, c, 2.4));
        sketch.painter().drawLine(QPointF(line.left() + 4, y), QPointF(line.left() + 24, y));
        table.cell(0, QString::fromStdString(r.name), c.ink, shown, variantNameWidth - 36.0);
        if (!r.fault.empty()) {
            sketch.text({line.left() + variantNameWidth, y},
                        sketch.theme().elided(coreWords(r.fault, m_context.system()), int(line.width() - variantNameWidth), 12, false),
                        Qt::AlignLeft | Qt::AlignVCenter, {c.brick, 12});
            continue;
        }
        for (std::size_t i = 0; i < all.size(); ++i)
            table.cell(i + 1, all[i].cells[int(row)], all[i].beyond[row] ? c.brick : c.ink, shown && i == 0);
    }
}

/// The selected band, and in it for each row where its dip may land.
void VariantsChart::paintDips(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const WantedBand* own = ownBand();
    if (!own)
        return;
    const Band& band = own->band;
    const double wide = band.to - band.from;
    double from = band.from - 0.25 * wide, to = band.to + 0.25 * wide;
    for (const study::Compared& row : *m_rows) // as far as dips lie beside the band, but no farther than its width
        if (const study::BandSpread* spread = row.spread ? row.spread->band(own->id) : nullptr; spread && spread->dip) {
            from = std::max(band.from - wide, std::min(from, (*spread->dip)[0] - 0.05 * wide));
            to = std::min(band.to + wide, std::max(to, (*spread->dip)[2] + 0.05 * wide));
        }
    sketch.text(area.topLeft() + QPointF(0, 4),
                tr("If it is not quite so: where the %1 dip may land").arg(QString::fromStdString(band.name)), Qt::AlignLeft | Qt::AlignTop,
                {c.inkSoft, 12});
    const QRectF plot(area.left() + 10, area.top() + 26, area.width() - 20, area.height() - 50);
    const auto x = [&](double f) { return plot.left() + plot.width() * std::clamp((f - from) / (to - from), 0.0, 1.0); };
    sketch.painter().fillRect(plot, c.fill);
    sketch.painter().fillRect(QRectF(x(band.from), plot.top(), x(band.to) - x(band.from), plot.height()), c.leafPale);
    const double pitch = plot.height() / double(std::max<std::size_t>(2, std::min(mostRows, m_rows->size())));
    double y = plot.top() + 0.5 * pitch;
    bool any = false;
    for (std::size_t i = 0; i < std::min(mostRows, m_rows->size()); ++i) {
        const study::Compared& row = (*m_rows)[i];
        const study::BandSpread* spread = row.spread ? row.spread->band(own->id) : nullptr;
        if (!spread || !spread->dip)
            continue;
        any = true;
        const QPen pen = penOf(i, row.antenna == "pinned", c, 1.0);
        const auto& dip = *spread->dip;
        sketch.painter().setPen(Qt::NoPen);
        QColor bar = pen.color();
        bar.setAlpha(150);
        sketch.painter().setBrush(bar);
        sketch.painter().drawRoundedRect(QRectF(x(dip[0]), y - 4, std::max(3.0, x(dip[2]) - x(dip[0])), 8), 4, 4);
        sketch.painter().setBrush(pen.color());
        sketch.painter().setPen(QPen(c.paper, 1.2));
        sketch.painter().drawEllipse(QPointF(x(dip[1]), y), 4.5, 4.5);
        y += pitch;
    }
    if (!any)
        sketch.text(plot.center(),
                    std::any_of(m_rows->begin(), m_rows->end(), [](const study::Compared& r) { return !r.spread && r.fault.empty(); })
                        ? tr("being computed …")
                        : tr("none of them has a dip here"),
                    Qt::AlignCenter, {c.inkSoft, 12});
    for (double tick : niceTicks(from / 1e6, to / 1e6, 7))
        sketch.text({x(tick * 1e6), plot.bottom() + 4}, QString::number(tick), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
}

QString VariantsChart::tableText() const
{
    if (!m_rows || m_rows->empty())
        return {};
    const std::vector<Column> all = columns();
    QString out = tr("variant");
    for (const Column& column : all)
        out += QLatin1Char('\t') + column.title;
    out += QLatin1Char('\n');
    for (std::size_t row = 0; row < m_rows->size(); ++row) {
        out += QString::fromStdString((*m_rows)[row].name);
        for (const Column& column : all)
            out += QLatin1Char('\t') + column.cells[int(row)];
        out += QLatin1Char('\n');
    }
    return out;
}

void VariantsChart::mousePressEvent(QMouseEvent* event)
{
    if (!m_rows || event->button() != Qt::LeftButton)
        return;
    const double row = (event->position().y() - tableTop(height()) - BoardTable::headHeight) / BoardTable::rowHeight;
    if (row >= 0.0 && row < double(std::min(mostRows, m_rows->size())) && (*m_rows)[std::size_t(row)].antenna != "pinned")
        emit chosen((*m_rows)[std::size_t(row)].variant);
}

void VariantsChart::step(int rows)
{
    if (m_rows)
        m_context.document.stepVariant(rows);
}

void VariantsChart::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Up: step(-1); break;
    case Qt::Key_Down: step(1); break;
    default: Canvas::keyPressEvent(event);
    }
}

} // namespace vetchling::app
