#include "app/stages/build/cut_board.h"

#include "app/document/document.h"
#include "app/stages/build/build_drawings.h"
#include "app/view/board_table.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "core/study/settings.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double tapeStep = 84.0, detailHeight = 134.0, figuresHeight = 70.0, lastRoom = 90.0; // px
const double columns[] = {0.0, 0.23, 0.31, 0.43, 0.56, 0.66, 0.75, 0.87};

bool rod(const BuildPiece& piece) { return piece.row.first == shapes::WireEnd::Tube && piece.row.last == shapes::WireEnd::Tube; }

void paintWords(Sketch& sketch, const QString& words, const QRectF& area)
{
    sketch.painter().setFont(sketch.theme().font(12));
    sketch.painter().setPen(sketch.colours().ink);
    sketch.painter().drawText(area, Qt::TextWordWrap, words);
}

QString small(double metres, units::System system) { return metres > 0.0 ? smallWords(metres, system) : QStringLiteral("–"); }

/// Words in the room they have: feet and inches by their signs, as tapes have them, before anything is left out.
QString fitted(const Sketch& sketch, QString words, double room, bool bold = false)
{
    constexpr int pixels = 12;
    if (sketch.theme().typeset(words, pixels, bold).size.width() > room)
        words.replace(QStringLiteral(" ft"), QStringLiteral("′")).replace(QStringLiteral(" in"), QStringLiteral("″"));
    return sketch.theme().elided(words, room, pixels, bold);
}

} // namespace

QString pieceWords(const CutRow& row, int piece)
{
    return row.pieces > 1 ? CutBoard::tr("%1 %2 of %3").arg(coreWords(row.name)).arg(piece).arg(row.pieces) : coreWords(row.name);
}

QString rodWords(const BuildPiece& piece, const shapes::AntennaShape& shape, units::System system)
{
    const QString length = lengthWords(piece.row.radiating, system);
    for (const shapes::TunedLength& t : shapes::familyOf(shape).tuned(shape)) {
        const double value = shapes::familyOf(shape).value(shape, t.parameter);
        const auto out = study::sectionsOut(shape, t.parameter, value);
        if (out && std::abs(value - piece.row.radiating) < 1e-6)
            return CutBoard::tr("pulled out to %1: %2 sections and %3").arg(length).arg(out->sections).arg(smallWords(out->rest, system));
    }
    if (!piece.tubes && piece.row.diameter > 0.0) {
        const QString tube =
            CutBoard::tr("%1 tube, %2 in sight").arg(valueWords(piece.row.diameter, units::Quantity::WireSize, system), length);
        return piece.row.overlap > 0.0 ? CutBoard::tr("%1, %2 more in the one before, whose end is slotted and clamped")
                                             .arg(tube, smallWords(piece.row.overlap, system))
                                       : tube;
    }
    if (!piece.tubes)
        return CutBoard::tr("set to %1").arg(length);
    QStringList tubes;
    for (const TubeSpan& s : piece.tubes->spans)
        tubes << CutBoard::tr("%1 × %2 shows %3")
                     .arg(valueWords(s.tube.outer, units::Quantity::WireSize, system),
                          valueWords(s.tube.wall, units::Quantity::WireSize, system), lengthWords(s.shows, system));
    QString words = CutBoard::tr("%1 of tubes: %2").arg(length, tubes.join(QStringLiteral(", ")));
    if (tubes.size() > 1)
        words += CutBoard::tr("; overlap %1").arg(smallWords(piece.tubes->overlap, system));
    return words;
}

CutBoard::CutBoard(ViewContext& context, BuildDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("cutBoard"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Pieces to cut, their marks on one tape, and what is done"));
}

std::vector<std::string> CutBoard::keys() const
{
    std::vector<std::string> all;
    if (const BuildFacts* facts = m_desk.facts())
        for (const BuildPiece& piece : facts->pieces)
            for (const std::string& key : pieceKeys(piece.row))
                all.push_back(key);
    return all;
}

std::string CutBoard::chosen() const
{
    const auto all = keys();
    return std::find(all.begin(), all.end(), m_chosen) != all.end() ? m_chosen : all.empty() ? std::string() : all.front();
}

void CutBoard::choose(const std::string& key)
{
    m_chosen = key;
    update();
    emit pieceChosen();
}

void CutBoard::tickChosen()
{
    if (const std::string key = chosen(); !key.empty()) {
        PieceState state = m_desk.piece(key);
        state.done = !state.done;
        m_desk.setPiece(key, state);
    }
}

QRectF CutBoard::boxOf(const std::string& key) const
{
    for (const auto& [known, box] : m_boxes)
        if (known == key)
            return box;
    return {};
}

void CutBoard::fit()
{
    const BuildFacts* facts = m_desk.facts();
    const std::size_t pieces = facts ? facts->pieces.size() : 0;
    setMinimumHeight(facts ? int(24.0 + tapeStep * double(pieces) + BoardTable::heightOf(pieces + (facts->rigging.ropes.empty() ? 0 : 1)) +
                                 34.0 + detailHeight + figuresHeight + 60.0)
                           : 300);
}

QString CutBoard::statusOf(const BuildPiece& piece) const
{
    const QString cut = lengthWords(piece.row.cut, m_context.system());
    if (rod(piece))
        return {};
    return piece.waitsFor.empty()
               ? tr("cut now: %1").arg(cut)
               : tr("not yet: trim the %1 first, then read here what to cut; about %2").arg(coreWords(piece.waitsFor), cut);
}

QString CutBoard::sentence() const
{
    const BuildFacts* facts = m_desk.facts();
    if (!facts)
        return tr("Nothing can be cut before the antenna can be built.");
    const QString wire = lengthWords(facts->wire, m_context.system(), 1);
    QString words =
        facts->waiting() > 0
            ? tr("%1 of wire, %2 pieces in all; the inner ones may be cut now, the outer ones wait.").arg(wire).arg(facts->count)
            : (facts->count == 1 ? tr("%1 of wire, %2 piece; measured within %3.")
                                 : tr("%1 of wire, %2 pieces in all; equal pieces equal within %3."))
                  .arg(wire)
                  .arg(facts->count)
                  .arg(m_context.system() == units::System::Metric ? tr("1 cm") : tr("1/2 in"));
    if (facts->done > 0)
        words += QLatin1Char(' ') + tr("%1 of %2 done.").arg(facts->done).arg(facts->count);
    return words;
}

void CutBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    m_boxes.clear();
    m_rows.clear();
    const BuildFacts* facts = m_desk.facts();
    if (!facts) {
        sketch.text({0.0, 20.0}, sentence(), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    double y = paintTapes(sketch, 0.0, size.width());
    y = paintTable(sketch, y + 4.0, size.width());
    y = paintDetails(sketch, y + 14.0, size.width());
    paintFigures(sketch, y + 6.0, size.width());
}

double CutBoard::paintTapes(Sketch& sketch, double top, double width)
{
    const Colours& c = sketch.colours();
    const BuildFacts& facts = *m_desk.facts();
    const bool sides = std::any_of(facts.pieces.begin(), facts.pieces.end(), [](const BuildPiece& p) { return p.row.pieces == 2; });
    sketch.text({0.0, top},
                sides ? tr("One tape from one peg, pulled taut. Mark one side with red tape, the other with white.")
                      : tr("One tape from one peg, pulled taut."),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    double y = top + 24.0;
    for (const BuildPiece& piece : facts.pieces) {
        const QRectF name = sketch.text({0.0, y},
                                        piece.row.pieces > 1 ? tr("%1, %2 pieces").arg(coreWords(piece.row.name)).arg(piece.row.pieces)
                                                             : coreWords(piece.row.name),
                                        Qt::AlignLeft | Qt::AlignTop, {c.ink, 13, true});
        sketch.text({name.right() + 18.0, y + 1.0}, sketch.theme().elided(statusOf(piece), width - name.right() - 20.0, 12),
                    Qt::AlignLeft | Qt::AlignTop, {piece.waitsFor.empty() ? c.inkSoft : c.brick, 12});
        if (rod(piece))
            paintWords(sketch, rodWords(piece, m_context.document.antenna().shape, m_context.system()),
                       QRectF(18.0, y + 22.0, width - 18.0, 52.0));
        else
            paintTape(sketch, piece, y + 26.0, width);
        y += tapeStep;
    }
    return y;
}

/// Marks at even places, the stretches between them opened like under a lens; long ones are broken.
void CutBoard::paintTape(Sketch& sketch, const BuildPiece& piece, double top, double width) const
{
    const Colours& c = sketch.colours();
    const auto& marks = piece.marks;
    const double left = 18.0, step = std::min(150.0, (width - left - 96.0) / double(std::max<std::size_t>(1, marks.size() - 1)));
    const double longest = piece.row.cut;
    for (std::size_t i = 0; i + 1 < marks.size(); ++i) {
        const double x = left + step * double(i), part = marks[i + 1].at - marks[i].at;
        const bool path = part > 0.12 * longest ||
                          (marks[i].kind != MarkKind::Peg && marks[i].kind != MarkKind::Link && marks[i].kind != MarkKind::Fold &&
                           marks[i + 1].kind != MarkKind::PigtailEnds && marks[i + 1].kind != MarkKind::Cut);
        sketch.painter().fillRect(QRectF(x, top, step, 9.0), path ? c.leaf : c.petal);
        if (part > 0.12 * longest)
            for (double d : {-5.0, 3.0}) {
                sketch.painter().setPen(QPen(c.paper, 3.0));
                sketch.painter().drawLine(QPointF(x + 0.5 * step + d, top - 1.0), QPointF(x + 0.5 * step + d + 5.0, top + 10.0));
            }
    }
    for (std::size_t i = 0; i < marks.size(); ++i) {
        const double x = left + step * double(i);
        sketch.line({x, top - 5.0}, {x, top + 15.0}, c.ink, 1.2);
        const double room = i + 1 < marks.size() ? step - 8.0 : lastRoom;
        sketch.text({x + 4.0, top + 13.0}, fitted(sketch, lengthWords(marks[i].at, m_context.system()), room, true),
                    Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
        sketch.text({x + 4.0, top + 29.0}, sketch.theme().elided(coreWords(markName(marks[i].kind)), room, 12),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    }
}

std::vector<QStringList> CutBoard::cells() const
{
    const auto system = m_context.system();
    std::vector<QStringList> out{
        {tr("Cut"), tr("Pieces"), tr("Path"), tr("+ loops, joints"), tr("+ fold"), tr("+ margin"), tr("Cut to"), tr("Done, measured")}};
    const BuildFacts* facts = m_desk.facts();
    if (!facts)
        return out;
    for (const BuildPiece& piece : facts->pieces) {
        const CutRow& r = piece.row;
        out.push_back({coreWords(r.name),
                       QString::number(r.pieces),
                       lengthWords(r.radiating, system),
                       small(r.ends - r.fold, system),
                       small(r.fold, system),
                       small(r.margin, system),
                       lengthWords(r.cut, system),
                       {}});
    }
    double rope = 0.0;
    for (const RopeReport& r : facts->rigging.ropes)
        rope += r.length;
    if (!facts->rigging.ropes.empty())
        out.push_back({tr("rope"),
                       QString::number(facts->rigging.ropes.size()),
                       {},
                       tr("knots %1 each").arg(lengthWords(knots, system, 1)),
                       {},
                       {},
                       tr("%1 in all").arg(lengthWords(rope, system, 1)),
                       {}});
    return out;
}

double CutBoard::paintTable(Sketch& sketch, double top, double width)
{
    const Colours& c = sketch.colours();
    const BuildFacts& facts = *m_desk.facts();
    const auto rows = cells();
    sketch.line({0.0, top}, {width, top}, c.hairline);
    std::vector<BoardTable::Column> heads;
    for (std::size_t k = 0; k < std::size(columns); ++k)
        heads.push_back(
            {fitted(sketch, rows.front()[int(k)], width * ((k + 1 < std::size(columns) ? columns[k + 1] : 1.0) - columns[k]) - 8.0),
             width * columns[k] + (k + 1 < std::size(columns) ? 4.0 : 0.0)});
    BoardTable table(sketch, {0.0, top}, width, heads);
    for (std::size_t r = 1; r < rows.size(); ++r) {
        const bool piece = r <= facts.pieces.size();
        const auto own = piece ? pieceKeys(facts.pieces[r - 1].row) : std::vector<std::string>();
        const QRectF row = table.begin(piece && onScreen() && std::find(own.begin(), own.end(), chosen()) != own.end());
        if (piece)
            m_rows.emplace_back(own.front(), row);
        const double y = row.top(), height = row.height();
        for (std::size_t k = 0; k + 1 < 8; ++k) {
            std::size_t next = k + 1; // what is said may go on where nothing stands beside it
            while (next + 1 < 8 && rows[r][int(next)].isEmpty())
                ++next;
            table.cell(k, fitted(sketch, rows[r][int(k)], width * (columns[next] - columns[k]) - 8.0, k == 6), c.ink, k == 6);
        }
        double x = width * columns[7];
        for (std::size_t i = 0; i < own.size() && i < 5; ++i) {
            const PieceState state = m_desk.piece(own[i]);
            const QRectF box(x, y + 0.5 * height - 6.0, 12.0, 12.0);
            m_boxes.emplace_back(own[i], box);
            sketch.painter().setPen(
                QPen(onScreen() && own[i] == chosen() ? c.petal : c.inkSoft, onScreen() && own[i] == chosen() ? 2.0 : 1.1));
            sketch.painter().setBrush(state.done ? c.leaf : c.card);
            sketch.painter().drawRect(box);
            if (state.done) {
                sketch.painter().setPen(QPen(c.paper, 2.0));
                sketch.painter().drawPolyline(
                    QPolygonF({{x + 2.5, box.center().y()}, {x + 5.0, box.bottom() - 3.0}, {x + 10.0, box.top() + 3.0}}));
            }
            x += 18.0;
            if (state.measured && own.size() <= 2)
                x = sketch
                        .text({x, y + 0.5 * height}, lengthWords(*state.measured, m_context.system()), Qt::AlignLeft | Qt::AlignVCenter,
                              {c.inkSoft, 11})
                        .right() +
                    6.0;
        }
    }
    return table.bottom();
}

double CutBoard::paintDetails(Sketch& sketch, double top, double width) const
{
    const auto built = m_desk.built();
    const DetailFacts of{m_context.document.antenna(), *built, *m_desk.facts(), m_context.system()};
    std::vector<DetailKind> kinds = detailsOf(*built, of.facts);
    const std::size_t room = std::max<std::size_t>(1, std::size_t(width / 216.0));
    if (kinds.size() > room)
        kinds.resize(room);
    BuildDrawings drawings(sketch, of);
    for (std::size_t i = 0; i < kinds.size(); ++i)
        drawings.detail(kinds[i], QRectF(width * double(i) / double(kinds.size()), top, width / double(kinds.size()), detailHeight));
    return top + detailHeight;
}

void CutBoard::paintFigures(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    const BuildFacts& facts = *m_desk.facts();
    const auto system = m_context.system();
    sketch.line({0.0, top}, {width, top}, c.hairline);
    struct Figure {
        QString name, value, more;
        bool bad = false;
    };
    std::vector<Figure> all;
    if (!facts.rigging.spans.empty()) {
        const SpanReport& s = facts.rigging.spans.front();
        const double span = norm(s.place.end - s.place.start), pull = facts.rigging.weakest()->pullInWeather;
        const double lowest = facts.rigging.lowest();
        const SpanReport& weak = *facts.rigging.weakest();
        all.push_back({tr("Sag of the longest span"), smallWords(s.still.sag, system),
                       tr("%1 % of %2").arg(100.0 * s.still.sag / span, 0, 'f', 1).arg(lengthWords(span, system, 1))});
        const Rigging& weather = m_context.document.antenna().workshop.rigging;
        all.push_back({weather.ice > 0.0 ? tr("Most pull, %1 m/s and ice").arg(weather.wind, 0, 'f', 0)
                                         : tr("Most pull, %1 m/s").arg(weather.wind, 0, 'f', 0),
                       tr("%1 N").arg(pull, 0, 'f', 0), tr("wire breaks at %1 N").arg(weak.load.breaking, 0, 'f', 0),
                       !facts.rigging.wireHolds(m_context.document.antenna().workshop.rigging)});
        all.push_back({tr("Lowest wire or rope"), lengthWords(lowest, system, 1),
                       lowest >= walkingHeight ? tr("high enough to walk under")
                       : lowest < 0.9          ? tr("feet catch in it: mark it")
                                               : tr("head height: mark it"),
                       lowest < walkingHeight});
    }
    if (m_context.solver.detail() && m_context.solver.detail()->strongestVoltsAtOneWatt > 0.0) {
        const double power = m_context.document.design().operation.power;
        all.push_back({tr("At %1 W").arg(power, 0, 'f', 0),
                       tr("%1 kV").arg(1e-3 * m_context.solver.detail()->strongestVoltsAtOneWatt * std::sqrt(power), 0, 'f', 1),
                       tr("peak, at the ends: out of reach"), true});
    }
    for (std::size_t i = 0; i < all.size(); ++i) {
        const double x = width * double(i) / double(all.size());
        sketch.text({x, top + 8.0}, all[i].name, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
        sketch.text({x, top + 24.0}, all[i].value, Qt::AlignLeft | Qt::AlignTop, {c.ink, 17, true});
        sketch.text({x, top + 48.0}, all[i].more, Qt::AlignLeft | Qt::AlignTop, {all[i].bad ? c.brick : c.inkSoft, 12});
    }
}

void CutBoard::mousePressEvent(QMouseEvent* event)
{
    for (const auto& [key, box] : m_boxes)
        if (box.adjusted(-4, -6, 4, 6).contains(event->position())) {
            choose(std::string(key));
            tickChosen();
            return;
        }
    for (const auto& [key, row] : m_rows)
        if (row.contains(event->position())) {
            choose(std::string(key));
            return;
        }
    Canvas::mousePressEvent(event);
}

void CutBoard::keyPressEvent(QKeyEvent* event)
{
    const auto all = keys();
    const auto here = std::find(all.begin(), all.end(), chosen());
    if (event->key() == Qt::Key_Space && here != all.end())
        tickChosen();
    else if (event->key() == Qt::Key_Down && here != all.end() && here + 1 != all.end())
        choose(*(here + 1));
    else if (event->key() == Qt::Key_Up && here != all.end() && here != all.begin())
        choose(*(here - 1));
    else
        return Canvas::keyPressEvent(event);
}

} // namespace vetchling::app
