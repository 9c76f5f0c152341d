#include "app/stages/build/sheet_pages.h"

#include "app/stages/build/build_drawings.h"
#include "app/stages/build/coil_words.h"
#include "app/stages/build/cut_board.h"
#include "app/stages/build/parts_board.h"
#include "app/view/feed_words.h"
#include "app/view/paper.h"
#include "app/view/words.h"
#include "core/files/writer.h"
#include "core/line/parts.h"
#include "core/workshop/templates.h"

#include <QDate>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double wide = 600.0, slim = 300.0; // px that a page is wide
constexpr int text = 11;

QPageSize sizeOf(SheetPaper paper)
{
    switch (paper) {
    case SheetPaper::A4: return QPageSize(QPageSize::A4);
    case SheetPaper::Letter: return QPageSize(QPageSize::Letter);
    case SheetPaper::Phone: break;
    }
    return QPageSize(QSizeF(75.0, 150.0), QPageSize::Millimeter, QStringLiteral("phone"));
}

} // namespace

/// Fills pages from top to bottom.
class SheetPages::Flow {
public:
    Flow(QPagedPaintDevice& device, QPainter& painter, const QString& foot)
        : m_device(device), m_painter(painter), m_sketch(painter, m_theme), m_foot(foot)
    {
        m_theme.setMode(Theme::Mode::Paper);
    }

    void begin(double width)
    {
        m_width = width;
        const double scale = m_painter.viewport().width() / width;
        m_painter.scale(scale, scale);
        m_height = m_painter.viewport().height() / scale;
        footer();
    }

    [[nodiscard]] double width() const { return m_width; }
    [[nodiscard]] bool narrow() const { return m_width < 400.0; }
    [[nodiscard]] Sketch& sketch() { return m_sketch; }
    [[nodiscard]] const Colours& colours() const { return m_sketch.colours(); }
    [[nodiscard]] int pages() const { return m_pages; }

    /// Room for something that is not parted; goes on to the next page where there is none. Returns its top.
    double take(double height)
    {
        if (m_y + height > m_height - 18.0 && m_y > 0.0)
            newPage();
        const double top = m_y;
        m_y += height;
        return top;
    }
    void space(double height) { m_y += m_y > 0.0 ? height : 0.0; }

    void heading(const QString& words, double follows = 40.0)
    {
        space(7.0);
        take(follows + 18.0);
        m_y -= follows + 18.0;
        const double y = take(18.0);
        m_sketch.text({0.0, y}, words, Qt::AlignLeft | Qt::AlignTop, {colours().ink, 12, true});
        m_sketch.line({0.0, y + 16.5}, {m_width, y + 16.5}, colours().inkFaint);
    }

    void paragraph(const QString& words, bool strong = false, int pixels = text)
    {
        const QFont font = m_sketch.theme().font(pixels, strong);
        m_painter.setFont(font);
        const QRectF needed = m_painter.boundingRect(QRectF(0.0, 0.0, m_width, 1e4), Qt::TextWordWrap, words);
        const double y = take(needed.height() + 2.0);
        m_painter.setFont(font);
        m_painter.setPen(colours().ink);
        m_painter.drawText(QRectF(0.0, y, m_width, needed.height() + 4.0), Qt::TextWordWrap, words);
    }

    /// Rows of words; the first one is the head. Columns whose share is 0 are left out.
    void table(const std::vector<QStringList>& rows, const std::vector<double>& shares, const std::vector<int>& boxes = {})
    {
        constexpr double row = 16.0;
        for (std::size_t r = 0; r < rows.size(); ++r) {
            const double y = take(row);
            double x = 0.0;
            for (std::size_t k = 0; k < shares.size() && int(k) < rows[r].size(); ++k) {
                if (shares[k] <= 0.0)
                    continue;
                m_sketch.text({x, y + 0.5 * row}, m_sketch.theme().elided(rows[r][int(k)], shares[k] * m_width - 4.0, text, r == 0),
                              Qt::AlignLeft | Qt::AlignVCenter, {r == 0 ? colours().inkSoft : colours().ink, text, r == 0});
                x += shares[k] * m_width;
            }
            if (r > 0 && r - 1 < boxes.size()) {
                m_painter.setPen(QPen(colours().ink, 0.9));
                m_painter.setBrush(Qt::NoBrush);
                for (int i = 0; i < boxes[r - 1] && x + 12.0 < m_width + 1.0; ++i, x += 15.0)
                    m_painter.drawRect(QRectF(x, y + 3.0, 10.0, 10.0));
            }
            m_sketch.line({0.0, y + row}, {m_width, y + row}, colours().hairline);
        }
    }

    /// Things to be ticked, in two columns where there is room.
    void boxes(const QStringList& all)
    {
        const int across = narrow() ? 1 : 2, down = (int(all.size()) + across - 1) / across;
        for (int r = 0; r < down; ++r) {
            const double y = take(15.0);
            for (int k = 0; k < across; ++k) {
                if (k * down + r >= all.size())
                    continue;
                const double x = m_width * k / across;
                m_painter.setPen(QPen(colours().ink, 0.9));
                m_painter.setBrush(Qt::NoBrush);
                m_painter.drawRect(QRectF(x, y + 3.0, 9.0, 9.0));
                m_sketch.text({x + 16.0, y + 7.5}, m_sketch.theme().elided(all[k * down + r], m_width / across - 20.0, text),
                              Qt::AlignLeft | Qt::AlignVCenter, {colours().ink, text});
            }
        }
    }

    void newPage()
    {
        m_device.newPage();
        ++m_pages;
        m_y = 0.0;
        footer();
    }

private:
    void footer()
    {
        m_sketch.text({0.0, m_height}, m_sketch.theme().elided(m_foot, m_width - 40.0, 9), Qt::AlignLeft | Qt::AlignBottom,
                      {colours().inkSoft, 9});
        m_sketch.text({m_width, m_height}, QString::number(m_pages), Qt::AlignRight | Qt::AlignBottom, {colours().inkSoft, 9});
    }

    QPagedPaintDevice& m_device;
    QPainter& m_painter;
    Theme m_theme;
    Sketch m_sketch;
    QString m_foot;
    double m_width = wide, m_height = 900.0, m_y = 0.0;
    int m_pages = 1;
};

QString SheetPages::title() const { return tr("Build: %1").arg(m_sheet.name); }

QStringList SheetPages::facts() const
{
    const shapes::WireChoice& w = m_sheet.antenna.shape.wire;
    QString wire = tr("Wire: %1, %2 thick").arg(m_sheet.conductor, valueWords(w.diameter, units::Quantity::WireSize, m_sheet.system));
    wire += w.jacket > 0.0 ? tr(", jacket of %1.").arg(valueWords(w.jacket, units::Quantity::WireSize, m_sheet.system)) : tr(", bare.");
    QStringList heights;
    for (const auto& [name, at] : heightsOf(*m_sheet.built))
        if (heights.size() < 8)
            heights << tr("%1 %2").arg(coreWords(name), lengthWords(at.z, m_sheet.system));
    QStringList out{tr("Site: %1, soil: %2. Cut for %3. %4")
                        .arg(m_sheet.site, coreWords(m_sheet.soil), frequencyWords(m_sheet.antenna.shape.designFrequency),
                             QDate::currentDate().toString(Qt::ISODate)),
                    wire, tr("Heights above ground: %1.").arg(heights.join(QStringLiteral(", ")))};
    if (!m_sheet.antenna.notes.empty())
        out << QString::fromStdString(m_sheet.antenna.notes).left(220);
    return out;
}

void SheetPages::head(Flow& flow) const
{
    const double y = flow.take(26.0);
    flow.sketch().text({0.0, y}, flow.sketch().theme().elided(title(), flow.width(), 18, true), Qt::AlignLeft | Qt::AlignTop,
                       {flow.colours().ink, 18, true});
    for (const QString& words : facts())
        flow.paragraph(words);
    const DetailFacts of{m_sheet.antenna, *m_sheet.built, m_sheet.facts, m_sheet.system};
    const double height = flow.narrow() ? 150.0 : 240.0, top = flow.take(height);
    BuildDrawings(flow.sketch(), of).whole(QRectF(0.0, top, flow.width(), height));
}

void SheetPages::pieces(Flow& flow) const
{
    flow.heading(tr("Cut"));
    std::vector<QStringList> rows{
        {tr("piece"), tr("times"), tr("path"), tr("loops, joints"), tr("fold"), tr("margin"), tr("cut to"), tr("done")}};
    std::vector<int> boxes;
    const auto small = [&](double metres) { return metres > 0.0 ? smallWords(metres, m_sheet.system) : QStringLiteral("–"); };
    for (const BuildPiece& piece : m_sheet.facts.pieces) {
        const CutRow& r = piece.row;
        rows.push_back({coreWords(r.name),
                        tr("%1 ×").arg(r.pieces),
                        lengthWords(r.radiating, m_sheet.system),
                        small(r.ends - r.fold),
                        small(r.fold),
                        small(r.margin),
                        lengthWords(r.cut, m_sheet.system),
                        {}});
        boxes.push_back(r.pieces);
    }
    if (flow.narrow())
        flow.table(rows, {0.34, 0.12, 0.0, 0.0, 0.0, 0.0, 0.32, 0.0}, boxes);
    else
        flow.table(rows, {0.2, 0.07, 0.13, 0.13, 0.11, 0.11, 0.13, 0.0}, boxes);
    for (const BuildPiece& piece : m_sheet.facts.pieces)
        if (piece.row.first == shapes::WireEnd::Tube && piece.row.last == shapes::WireEnd::Tube)
            flow.paragraph(tr("%1: %2.").arg(coreWords(piece.row.name), rodWords(piece, m_sheet.antenna.shape, m_sheet.system)));
    for (const BuildPiece& piece : m_sheet.facts.pieces)
        if (!piece.waitsFor.empty())
            flow.paragraph(tr("%1: not yet. Trim the %2 first; the program then says what to cut.")
                               .arg(coreWords(piece.row.name), coreWords(piece.waitsFor)));
    QStringList words;
    if (m_sheet.facts.wire > 0.005)
        words << tr("%1 of wire in all.").arg(lengthWords(m_sheet.facts.wire, m_sheet.system, 1));
    words << tr("Tie, tune, then crimp, and measure again.");
    if (std::any_of(m_sheet.facts.pieces.begin(), m_sheet.facts.pieces.end(), [](const BuildPiece& p) { return p.row.pieces == 2; }))
        words << tr("Equal pieces equal within %1. Left side red tape, right side white.")
                     .arg(m_sheet.system == units::System::Metric ? tr("1 cm") : tr("1/2 in"));
    flow.paragraph(words.join(QLatin1Char(' ')));
}

void SheetPages::tapes(Flow& flow) const
{
    flow.heading(tr("One tape, from one peg, pulled taut"));
    for (const BuildPiece& piece : m_sheet.facts.pieces) {
        QStringList marks;
        for (const TapeMark& mark : piece.marks)
            marks << tr("%1 %2").arg(lengthWords(mark.at, m_sheet.system), coreWords(markName(mark.kind)));
        flow.paragraph(tr("%1: %2").arg(coreWords(piece.row.name), marks.join(QStringLiteral("  ·  "))));
    }
}

void SheetPages::details(Flow& flow) const
{
    const DetailFacts of{m_sheet.antenna, *m_sheet.built, m_sheet.facts, m_sheet.system};
    const std::vector<DetailKind> kinds = detailsOf(*m_sheet.built, m_sheet.facts);
    if (kinds.empty())
        return;
    flow.heading(tr("How it is put together"), 120.0);
    const std::size_t across = flow.narrow() ? 1 : 3;
    for (std::size_t i = 0; i < kinds.size(); i += across) {
        const double top = flow.take(134.0), part = flow.width() / double(across);
        for (std::size_t k = i; k < std::min(i + across, kinds.size()); ++k)
            BuildDrawings(flow.sketch(), of).detail(kinds[k], QRectF(part * double(k - i), top, part - 8.0, 132.0));
    }
}

void SheetPages::parts(Flow& flow) const
{
    flow.heading(tr("Parts"));
    QStringList all;
    for (const PartRow& row : m_sheet.facts.parts)
        if (!row.leftOut)
            all << QStringLiteral("%1  %2").arg(
                row.unit == PartUnit::Metre ? lengthWords(row.count, m_sheet.system, m_sheet.system == units::System::Metric ? 0 : 1)
                                            : QString::number(row.count, 'g', 4),
                row.own ? QString::fromStdString(row.name) : coreWords(row.name));
    flow.boxes(all);
    if (const double price = priceOf(m_sheet.facts.parts); price > 0.0)
        flow.paragraph(
            tr("Those with a price cost %1.").arg(QStringLiteral("%1 %2").arg(price, 0, 'f', 2).arg(m_sheet.currency).trimmed()));
    flow.paragraph(metalWords(m_sheet.facts));
    flow.paragraph(tr("Seal every joint: glue-lined sleeve, then self-fusing tape, then plain tape; a drip loop before the box."));
}

void SheetPages::mechanics(Flow& flow) const
{
    flow.heading(tr("What it has to stand"));
    for (const QString& words : mechanicsWords(m_sheet.facts, m_sheet.antenna.workshop.rigging, m_sheet.system))
        flow.paragraph(words);
}

void SheetPages::winding(Flow& flow) const
{
    if (!m_sheet.coil && m_sheet.coilMissing.isEmpty())
        return;
    flow.heading(tr("Coil"));
    if (!m_sheet.coil)
        return flow.paragraph(m_sheet.coilMissing);
    const Wound& w = m_sheet.coil->wound;
    flow.paragraph(windWords(w, m_sheet.system) + QLatin1Char(' ') +
                   tr("Pitch %1, %2 long; %3 of wire for the turns, and the leads. %4 µH with its leads, Q about %5.")
                       .arg(valueWords(w.coil.pitch, units::Quantity::WireSize, m_sheet.system),
                            valueWords(w.allLength(), units::Quantity::WireSize, m_sheet.system), lengthWords(w.allWire(), m_sheet.system))
                       .arg(1e6 * w.whole(), 0, 'f', 2)
                       .arg(w.figures.q, 0, 'f', 0));
}

void SheetPages::bench(Flow& flow) const
{
    if (m_sheet.facts.bench.empty() && m_sheet.facts.cards.empty())
        return;
    flow.heading(tr("At the bench"));
    for (const Caution& c : m_sheet.facts.bench)
        flow.paragraph(QStringLiteral("%1. %2").arg(coreWords(c.heading), coreWords(c.words, m_sheet.system)));
    for (const BenchCard& card : m_sheet.facts.cards)
        flow.paragraph(cardWords(card, m_sheet.system));
}

void SheetPages::feed(Flow& flow) const
{
    flow.heading(tr("Feed line, from the antenna"));
    QStringList all;
    for (const ChainPart& part : wholeChain(m_sheet.antenna))
        all << QStringLiteral("%1 %2").arg(feed::partName(part), feed::partFigure(part, m_sheet.system)).trimmed();
    flow.paragraph(all.isEmpty() ? tr("Nothing is drawn: put a choke and the coax in under Feed.") : all.join(QStringLiteral("  →  ")));
    if (const auto& choke = m_sheet.choke)
        flow.paragraph(tr("Choke: %1 turns through %2 of %3, %4.")
                           .arg(choke->turns)
                           .arg(choke->rings > 1 ? tr("%1 rings").arg(choke->rings) : tr("a ring"), coreWords(choke->ring.name),
                                coreWords(choke->ferrite.name)));
}

void SheetPages::safety(Flow& flow) const
{
    flow.heading(tr("Keep away and keep safe"));
    flow.paragraph(m_sheet.distances);
    for (const auto& [heading, words] : m_sheet.cautions)
        flow.paragraph(QStringLiteral("%1. %2").arg(heading, words));
    flow.paragraph(tr("No legal advice: follow local codes and your licence, and ask licensed people."));
}

/// What the list of what is left to do has in red and yellow.
void SheetPages::notRight(Flow& flow) const
{
    if (m_sheet.notRight.empty() && m_sheet.allFound)
        return;
    flow.heading(tr("Not right yet"));
    for (const auto& [title, words] : m_sheet.notRight)
        flow.paragraph(QStringLiteral("%1. %2").arg(title, words));
    if (!m_sheet.allFound)
        flow.paragraph(tr("Only its place was looked into for this sheet: see What is left to do."));
}

void SheetPages::packing(Flow& flow) const
{
    flow.heading(tr("Put it up"));
    QStringList lines;
    for (std::size_t i = 0; i < m_sheet.facts.pack.order.size(); ++i)
        lines << QStringLiteral("%1. %2").arg(i + 1).arg(coreWords(m_sheet.facts.pack.order[i], m_sheet.system));
    for (const QString& line : flow.narrow() ? lines : QStringList{lines.join(QLatin1Char(' '))})
        flow.paragraph(line);
    flow.heading(tr("Written down"), 46.0);
    const double top = flow.take(50.0);
    for (int i = 1; i <= 3; ++i)
        flow.sketch().line({0.0, top + 16.0 * i}, {flow.width(), top + 16.0 * i}, flow.colours().inkFaint, 0.7, Qt::DotLine);
}

int SheetPages::paint(QPagedPaintDevice& device, bool narrow) const
{
    QPainter painter;
    if (!m_sheet.built || !painter.begin(&device))
        return 0;
    Flow flow(device, painter, tr("%1, %2. Vetchling").arg(m_sheet.name, QDate::currentDate().toString(Qt::ISODate)));
    flow.begin(narrow ? slim : wide);
    head(flow);
    pieces(flow);
    tapes(flow);
    bench(flow);
    details(flow);
    winding(flow);
    feed(flow);
    if (!narrow && flow.pages() == 1)
        flow.newPage();
    parts(flow);
    mechanics(flow);
    notRight(flow);
    safety(flow);
    packing(flow);
    return painter.end() ? flow.pages() : 0;
}

Faults SheetPages::write(const QString& path, SheetPaper paper) const
{
    const double margin = paper == SheetPaper::Phone ? 3.0 : 13.0; // mm
    return writePdf(path, {title(), sizeOf(paper), {margin, margin, margin, margin}}, [&](QPdfWriter& pages) -> Faults {
        if (paint(pages, paper == SheetPaper::Phone) > 0)
            return {};
        return {{"", coreText("core", "there is nothing to build yet")}};
    });
}

Faults SheetPages::writeTemplates(const QString& path) const
{
    if (!m_sheet.built)
        return {{"", coreText("core", "there is nothing to build yet")}};
    const std::vector<Plate> plates = platesFor(m_sheet.antenna, *m_sheet.built);
    if (plates.empty())
        return {{"", coreText("core", "this antenna has no plate to be drilled")}};
    if (path.endsWith(QStringLiteral(".svg"), Qt::CaseInsensitive))
        return files::writeWhole(path.toStdString(), platesSvg(plates, m_sheet.antenna.name));
    return writePdf(path, {title(), QPageSize(QPageSize::A4), {8.0, 8.0, 8.0, 8.0}}, [&](QPdfWriter& pages) -> Faults {
        QPainter painter(&pages);
        Theme theme;
        theme.setMode(Theme::Mode::Paper);
        paintPlates(painter, theme, plates, [&] { pages.newPage(); });
        return {};
    });
}

} // namespace vetchling::app
