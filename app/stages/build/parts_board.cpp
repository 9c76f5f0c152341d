#include "app/stages/build/parts_board.h"

#include "app/document/document.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double partRowHeight = 22.0;
const double partColumns[] = {0.0, 0.58, 0.74, 0.88};

QString countWords(const PartRow& row, units::System system)
{
    return row.unit == PartUnit::Metre ? lengthWords(row.count, system, system == units::System::Metric ? 0 : 1)
                                       : QString::number(row.count, 'g', 4);
}

QString newtons(double force) { return PartsBoard::tr("%1 N").arg(force, 0, 'f', force < 9.95 ? 1 : 0); }

QString placeWords(const SpanPlace& place)
{
    const auto end = [](const std::string& name) { return name.empty() ? PartsBoard::tr("corner") : coreWords(name); };
    const QString words = PartsBoard::tr("%1 to %2").arg(end(place.from), end(place.to));
    return place.alike > 1 ? PartsBoard::tr("%1 (%2 alike)").arg(words).arg(place.alike) : words;
}

} // namespace

QStringList mechanicsWords(const BuildFacts& facts, const Rigging& rigging, units::System system)
{
    QStringList out;
    const RiggingReport& r = facts.rigging;
    if (!r.faults.empty())
        out << coreWords(r.faults.front().message, system);
    for (const BuildPiece& piece : facts.pieces)
        if (piece.droop && piece.tubes->spans.size() > 1)
            out << PartsBoard::tr("%1: weighs %2 kg; held level at one end its tip would hang %3.%4")
                       .arg(coreWords(piece.row.name))
                       .arg(piece.droop->mass, 0, 'f', 1)
                       .arg(smallWords(piece.droop->tip, system),
                            piece.tubes->shims ? PartsBoard::tr(" Some tubes want a shim.") : QString());
    if (facts.stand)
        for (const Text& words : standWords(*facts.stand, rigging.wind))
            out << coreWords(words, system);
    if (r.spans.empty())
        return facts.stand ? out : out << PartsBoard::tr("Nothing is stretched here.");
    const SpanReport& s = r.spans.front();
    out << PartsBoard::tr("%1: pulled with %2 it sags %3; at %4 m/s%5 %6.")
               .arg(placeWords(s.place), newtons(rigging.pull), smallWords(s.still.sag, system))
               .arg(rigging.wind, 0, 'f', 0)
               .arg(rigging.ice > 0.0 ? PartsBoard::tr(" and %1 of ice").arg(valueWords(rigging.ice, units::Quantity::WireSize, system))
                                      : QString(),
                    rigging.weight ? PartsBoard::tr("the pull stays and it sags %1").arg(smallWords(s.sagInWeather, system))
                                   : PartsBoard::tr("it pulls with %1").arg(newtons(s.pullInWeather)));
    const SpanReport& weak = *r.weakest();
    if (&weak != &s)
        out << PartsBoard::tr("Most it pulls in that weather at %1: %2.").arg(placeWords(weak.place), newtons(weak.pullInWeather));
    const double most = weak.mostPull;
    out << (r.wireHolds(rigging)
                ? PartsBoard::tr("The wire breaks at %1: holds with a safety of %2. It may be pulled with up to %3 in still air.")
                : PartsBoard::tr("The wire breaks at %1: not enough for a safety of %2. Pull with no more than %3 in still air, or hang it "
                                 "over a pulley with a weight."))
               .arg(newtons(weak.load.breaking))
               .arg(rigging.safety, 0, 'g', 3)
               .arg(newtons(most));
    if (std::abs(facts.lossOverCopper - 1.0) > 0.02)
        out << PartsBoard::tr("It has %1 times the resistance of copper of its size.")
                   .arg(facts.lossOverCopper, 0, 'f', facts.lossOverCopper < 10.0 ? 1 : 0);
    if (!r.ropes.empty()) {
        const RopeReport& rope =
            *std::max_element(r.ropes.begin(), r.ropes.end(), [](const RopeReport& a, const RopeReport& b) { return a.length < b.length; });
        QString words = PartsBoard::tr("Longest rope: %1 from the %2 to %3, %4° %5.")
                            .arg(lengthWords(rope.length, system, 1), coreWords(rope.end),
                                 rope.toGround          ? PartsBoard::tr("the ground")
                                 : rope.support.empty() ? PartsBoard::tr("a pole that is not there yet")
                                                        : QString::fromStdString(rope.support))
                            .arg(std::abs(rope.angle), 0, 'f', 0)
                            .arg(rope.angle < 0.0 ? PartsBoard::tr("down") : PartsBoard::tr("up"));
        if (rigging.weight)
            words += PartsBoard::tr(" A weight of %1 kg pulls as much.").arg(rope.weight, 0, 'f', 1);
        if (!r.ropeHolds(rigging))
            words += PartsBoard::tr(" The rope is too weak for that safety.");
        out << words;
    }
    if (std::any_of(r.ropes.begin(), r.ropes.end(), [](const RopeReport& rope) { return rope.toGround; }))
        out << PartsBoard::tr("A rope goes to the ground: flag it, feet catch in it.");
    const double lowest = r.lowest();
    if (lowest < walkingHeight)
        out << (lowest < 0.9 ? PartsBoard::tr("Wire or rope comes down to %1: feet catch in it. Mark it with tape or fence it off.")
                             : PartsBoard::tr("Wire or rope comes down to %1: a neck can meet it. Mark it with tape or fence it off."))
                   .arg(lengthWords(lowest, system, 1));
    return out;
}

QString cardWords(const BenchCard& card, units::System system)
{
    QStringList steps;
    for (const Text& step : card.steps)
        steps << coreWords(step, system);
    return QStringLiteral("%1: %2").arg(coreWords(card.title), steps.join(QLatin1Char(' ')));
}

QString metalWords(const BuildFacts& facts)
{
    QStringList bad, eaten;
    for (const MetalPair& pair : facts.metals)
        if (pair.corrodes && bad.size() < 4)
            bad << PartsBoard::tr("%1 with %2 (%3 V)")
                       .arg(coreWords(pair.one).toLower(), coreWords(pair.other).toLower())
                       .arg(pair.volts, 0, 'f', 2);
    const QString air = facts.saltAir ? PartsBoard::tr("in salt air") : PartsBoard::tr("in the open");
    return bad.isEmpty()
               ? PartsBoard::tr("No usual screw or clamp eats this wire %1.").arg(air)
               : PartsBoard::tr("Keep apart %1: %2. Tin the wire, put a washer of stainless steel or brass between, grease and seal.")
                     .arg(air, bad.join(QStringLiteral(", ")));
}

PartsBoard::PartsBoard(ViewContext& context, BuildDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("partsBoard"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Parts, what they have to stand, and how they are packed"));
}

QString PartsBoard::sentence() const
{
    const BuildFacts* facts = m_desk.facts();
    if (!facts)
        return tr("Nothing to buy before the antenna can be built.");
    const double price = priceOf(facts->parts);
    const QString currency = QString::fromStdString(m_context.shed.shed().currency);
    QString words = tr("%1 parts").arg(countOf(facts->parts));
    if (price > 0.0)
        words += tr(", %1 for those with a price").arg(QStringLiteral("%1 %2").arg(price, 0, 'f', 2).arg(currency).trimmed());
    return words + (facts->rigging.wireHolds(m_context.document.antenna().workshop.rigging)
                        ? tr("; the wire holds in the weather it is asked to stand.")
                        : tr("; the wire does not hold in the weather it is asked to stand."));
}

std::string PartsBoard::chosen() const
{
    const BuildFacts* facts = m_desk.facts();
    if (!facts || facts->parts.empty())
        return {};
    const auto found = std::find_if(facts->parts.begin(), facts->parts.end(), [&](const PartRow& r) { return r.key == m_chosen; });
    return found == facts->parts.end() ? facts->parts.front().key : m_chosen;
}

void PartsBoard::choose(const std::string& key)
{
    m_chosen = key;
    update();
    emit partChosen();
}

void PartsBoard::fit()
{
    const BuildFacts* facts = m_desk.facts();
    setMinimumHeight(facts ? std::max(520, int(partRowHeight * double(facts->parts.size() + 2) + 130.0)) : 300);
}

std::vector<QStringList> PartsBoard::cells() const
{
    std::vector<QStringList> out{{tr("Part"), tr("Count"), tr("Each"), tr("Sum")}};
    const BuildFacts* facts = m_desk.facts();
    if (!facts)
        return out;
    for (const PartRow& row : facts->parts)
        out.push_back({row.own ? QString::fromStdString(row.name) : coreWords(row.name),
                       row.leftOut ? tr("left out") : countWords(row, m_context.system()),
                       row.price ? QString::number(*row.price, 'f', 2) : QStringLiteral("–"),
                       row.price && !row.leftOut ? QString::number(row.sum(), 'f', 2) : QStringLiteral("–")});
    return out;
}

void PartsBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    m_rows.clear();
    if (!m_desk.facts()) {
        sketch.text({0.0, 20.0}, sentence(), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    const double left = std::round(0.52 * size.width());
    const double y = paintParts(sketch, 0.0, left - 26.0);
    paintMetals(sketch, y + 12.0, left - 26.0);
    const double below = paintSpan(sketch, QRectF(left, 0.0, size.width() - left, 150.0));
    paintPack(sketch, left, below + 12.0, size.width() - left);
}

double PartsBoard::paintParts(Sketch& sketch, double top, double width)
{
    const Colours& c = sketch.colours();
    const auto rows = cells();
    const BuildFacts& facts = *m_desk.facts();
    double y = top;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const bool out = r > 0 && facts.parts[r - 1].leftOut;
        if (r > 0) {
            m_rows.emplace_back(facts.parts[r - 1].key, QRectF(0.0, y, width, partRowHeight));
            if (onScreen() && facts.parts[r - 1].key == chosen())
                sketch.painter().fillRect(m_rows.back().second, c.leafPale);
        }
        for (int k = 0; k < 4; ++k) {
            const double next = k < 3 ? partColumns[k + 1] : 1.0;
            const QString words = sketch.theme().elided(rows[r][k], width * (next - partColumns[k]) - 6.0, 12);
            sketch.text({k == 0 ? 4.0 : width * next - 4.0, y + 0.5 * partRowHeight}, words,
                        (k == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter,
                        {r == 0 ? c.inkSoft
                         : out  ? c.inkFaint
                                : c.ink,
                         12, r > 0 && facts.parts[r - 1].changed && k > 0});
        }
        y += partRowHeight;
        sketch.line({0.0, y}, {width, y}, c.hairline);
    }
    return y;
}

double PartsBoard::paintMetals(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    sketch.text({0.0, top}, tr("Metals"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    sketch.painter().setFont(sketch.theme().font(12));
    sketch.painter().setPen(c.inkSoft);
    QRectF filled;
    sketch.painter().drawText(QRectF(0.0, top + 18.0, width, 90.0), Qt::TextWordWrap, metalWords(*m_desk.facts()), &filled);
    return filled.bottom();
}

/// The longest span as it hangs, its sag drawn ten times as deep.
double PartsBoard::paintSpan(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const BuildFacts& facts = *m_desk.facts();
    const auto system = m_context.system();
    sketch.text(area.topLeft(), tr("How it hangs"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    double y = area.top() + 24.0;
    if (!facts.rigging.spans.empty() && facts.rigging.spans.front().still.horizontal > 0.0) {
        const SpanReport& s = facts.rigging.spans.front();
        const QRectF drawing(area.left() + 10.0, y + 8.0, area.width() - 20.0, 74.0);
        const double high = std::max({s.place.start.z, s.place.end.z, 1.0}), scale = drawing.height() / high;
        const auto at = [&](double z) { return drawing.bottom() - scale * z; };
        const QPointF a(drawing.left(), at(s.place.start.z)), b(drawing.right(), at(s.place.end.z));
        const double drawn = std::min(10.0 * s.still.sag * scale, 0.8 * std::min(drawing.bottom() - a.y(), drawing.bottom() - b.y()) + 8.0);
        sketch.line({area.left(), drawing.bottom()}, {area.right(), drawing.bottom()}, c.inkFaint);
        for (QPointF top : {a, b})
            sketch.line(top, {top.x(), drawing.bottom()}, c.hairline, 2.0);
        sketch.line(a, b, c.hairline, 1.0, Qt::DashLine);
        QPainterPath wire(a);
        wire.quadTo(0.5 * (a + b) + QPointF(0.0, 2.0 * drawn), b);
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(QPen(c.leaf, 2.2));
        sketch.painter().drawPath(wire);
        sketch.text(0.5 * (a + b) + QPointF(0.0, -4.0), tr("sag %1, drawn deeper").arg(smallWords(s.still.sag, system)),
                    Qt::AlignHCenter | Qt::AlignBottom, {c.inkSoft, 11, false, c.paper});
        y = drawing.bottom() + 10.0;
    }
    sketch.painter().setFont(sketch.theme().font(12));
    for (const QString& words : mechanicsWords(facts, m_context.document.antenna().workshop.rigging, system)) {
        sketch.painter().setPen(c.ink);
        QRectF filled;
        sketch.painter().drawText(QRectF(area.left(), y, area.width(), 90.0), Qt::TextWordWrap, words, &filled);
        y = filled.bottom() + 5.0;
    }
    return y;
}

double PartsBoard::paintPack(Sketch& sketch, double left, double top, double width) const
{
    const Colours& c = sketch.colours();
    const PackList& pack = m_desk.facts()->pack;
    const auto system = m_context.system();
    sketch.line({left, top}, {left + width, top}, c.hairline);
    sketch.text({left, top + 8.0}, tr("Packed and put up"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    QStringList lines;
    if (pack.mass > 0.0)
        lines << tr("Wire and rope weigh %1 kg and roll up.").arg(pack.mass, 0, 'f', 1);
    if (pack.longest > 0.0)
        lines << tr("Longest piece: %1, %2.").arg(coreWords(pack.longestName), lengthWords(pack.longest, system));
    for (std::size_t i = 0; i < pack.order.size(); ++i)
        lines << QStringLiteral("%1. %2").arg(i + 1).arg(coreWords(pack.order[i], system));
    double y = top + 28.0;
    sketch.painter().setFont(sketch.theme().font(12));
    for (const QString& words : lines) {
        sketch.painter().setPen(c.inkSoft);
        QRectF filled;
        sketch.painter().drawText(QRectF(left, y, width, 60.0), Qt::TextWordWrap, words, &filled);
        y = filled.bottom() + 3.0;
    }
    return y;
}

void PartsBoard::mousePressEvent(QMouseEvent* event)
{
    for (const auto& [key, row] : m_rows)
        if (row.contains(event->position())) {
            choose(std::string(key));
            return;
        }
    Canvas::mousePressEvent(event);
}

void PartsBoard::keyPressEvent(QKeyEvent* event)
{
    const BuildFacts* facts = m_desk.facts();
    if (!facts || facts->parts.empty())
        return Canvas::keyPressEvent(event);
    const std::string here = chosen();
    const auto row = std::find_if(facts->parts.begin(), facts->parts.end(), [&](const PartRow& r) { return r.key == here; });
    if (event->key() == Qt::Key_Down && row + 1 != facts->parts.end())
        choose(std::string((row + 1)->key));
    else if (event->key() == Qt::Key_Up && row != facts->parts.begin())
        choose(std::string((row - 1)->key));
    else if (event->key() == Qt::Key_Delete)
        m_desk.removePart(here);
    else
        Canvas::keyPressEvent(event);
}

PartsPanel::PartsPanel(ViewContext& context, BuildDesk& desk, PartsBoard& board, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk), m_board(board)
{
    ledger.heading(tr("The chosen part"));
    m_name = ledger.note();
    m_count = ledger.value(tr("How many, or metres"), units::Quantity::Plain, QStringLiteral("partCount"));
    m_count->setRange(0.0, 1e5);
    connect(m_count, &ValueEdit::edited, this,
            [this](double value, const QString&, bool) { change([&](PartChange& c) { c.count = value; }); });
    m_price = ledger.value(tr("Price of one"), units::Quantity::Plain, QStringLiteral("partPrice"));
    m_price->setRange(0.0, 1e6);
    m_price->clearValue(context.system());
    connect(m_price, &ValueEdit::edited, this,
            [this](double value, const QString&, bool) { change([&](PartChange& c) { c.price = value; }); });
    m_remove = ledger.button({}, QStringLiteral("partRemove"));
    connect(m_remove, &QPushButton::clicked, this, [this] { m_desk.removePart(m_board.chosen()); });
    m_own = ledger.name(tr("Another part"), QStringLiteral("partOwn"));
    connect(m_own, &NameEdit::named, this, [this](const QString& name) {
        if (name.trimmed().isEmpty())
            return;
        const std::string key = m_desk.addOwnPart(name.trimmed());
        m_own->setName({});
        m_board.choose(key);
    });
    m_total = ledger.figure(tr("All with a price"));
    ledger.line();
    ledger.fold(tr("How it hangs"), QStringLiteral("rigging"), true);
    m_hangs = ledger.choice(tr("The ends are"), {tr("tied fast"), tr("over a pulley, with a weight")}, QStringLiteral("rigHangs"));
    connect(m_hangs, &QComboBox::activated, this,
            [this](int index) { m_desk.edit(tr("change how it hangs"), {}, [&](Workshop& w) { w.rigging.weight = index == 1; }); });
    using units::Quantity;
    rig(ledger, tr("Pull, N"), "rigPull", Quantity::Plain, &Rigging::pull, 0.1, 1e5);
    rig(ledger, tr("Safety, times"), "rigSafety", Quantity::Plain, &Rigging::safety, 1.0, 20.0);
    rig(ledger, tr("Wind, m/s"), "rigWind", Quantity::Plain, &Rigging::wind, 0.0, 90.0);
    rig(ledger, tr("Ice round the wire"), "rigIce", Quantity::WireSize, &Rigging::ice, 0.0, 0.1);
    rig(ledger, tr("Hangs in the middle, kg"), "rigCentre", Quantity::Plain, &Rigging::centreMass, 0.0, 50.0);
    rig(ledger, tr("Rope breaks at, N"), "rigRope", Quantity::Plain, &Rigging::ropeStrength, 1.0, 1e6);
    ledger.endFold();
    ledger.fold(tr("A brace or strut"), QStringLiteral("brace"), false);
    m_carries = ledger.value(tr("Carries, kg"), Quantity::Plain, QStringLiteral("braceMass"));
    m_rise = ledger.value(tr("Rises above it"), Quantity::Length, QStringLiteral("braceRise"));
    m_reach = ledger.value(tr("Reaches out"), Quantity::Length, QStringLiteral("braceReach"));
    m_brace = ledger.figure(tr("Pull in it"));
    const double usual[] = {5.0, 0.5, 1.0};
    ValueEdit* const fields[] = {m_carries, m_rise, m_reach};
    for (int i = 0; i < 3; ++i) {
        fields[i]->setRange(0.01, 1000.0);
        fields[i]->setValue(usual[i], context.system());
        connect(fields[i], &ValueEdit::edited, this, &PartsPanel::showBrace);
    }
    showBrace();
    ledger.endFold();
    ledger.fold(tr("Cards for the bench"), QStringLiteral("cards"), false);
    m_cards = ledger.note();
    m_cards->setObjectName(QStringLiteral("benchCards"));
    ledger.endFold();
    ledger.note(
        tr("Wind on a cylinder, a sleeve of ice, stretch of wire and rope; stiff supports. For towers and masts ask who knows them."));
    ledger.caution(tr("A wire under tension whips when it parts. Never climb alone, nor what is not built for it."));
}

void PartsPanel::showBrace()
{
    const auto pull = braceTension(m_carries->value() * gravity, m_rise->value(), m_reach->value());
    m_brace->setText(pull ? newtons(*pull) : QStringLiteral("–"));
}

void PartsPanel::rig(Ledger& ledger, const QString& label, const char* object, units::Quantity quantity, double Rigging::*member,
                     double lowest, double highest)
{
    ValueEdit* edit = ledger.value(label, quantity, QLatin1String(object));
    edit->setRange(lowest, highest);
    m_fields.emplace_back(member, edit);
    connect(edit, &ValueEdit::edited, this, [this, member, object](double value, const QString&, bool dragging) {
        m_desk.edit(tr("change how it hangs"), dragging ? QLatin1String(object) : QString(),
                    [&](Workshop& w) { w.rigging.*member = value; });
    });
}

void PartsPanel::change(const std::function<void(PartChange&)>& change)
{
    const std::string key = m_board.chosen();
    if (key.empty())
        return;
    const auto& all = m_context.document.antenna().workshop.parts;
    const auto known = all.find(key);
    PartChange part = known == all.end() ? PartChange() : known->second;
    change(part);
    m_desk.setPart(key, part);
}

void PartsPanel::refresh()
{
    const BuildFacts* facts = m_desk.facts();
    const auto system = m_context.system();
    const std::string key = m_board.chosen();
    const PartRow* row = nullptr;
    if (facts)
        for (const PartRow& r : facts->parts)
            row = r.key == key ? &r : row;
    QStringList cards;
    if (facts)
        for (const BenchCard& card : facts->cards)
            cards << cardWords(card, system);
    m_cards->setText(cards.isEmpty() ? tr("Nothing is soldered, joined or drilled for it.") : cards.join(QStringLiteral("\n\n")));
    m_name->setText(!row ? tr("none") : row->own ? QString::fromStdString(row->name) : coreWords(row->name));
    for (QWidget* w : std::initializer_list<QWidget*>{m_count, m_price, m_remove})
        w->setEnabled(row != nullptr);
    if (row) {
        m_count->setValue(row->count, system);
        if (row->price)
            m_price->setValue(*row->price, system);
        else
            m_price->clearValueUnlessTyping(system);
        m_remove->setText(row->own ? tr("Remove it") : row->leftOut ? tr("Take it back in") : tr("Leave it out"));
    }
    const double price = facts ? priceOf(facts->parts) : 0.0;
    m_total->setText(price > 0.0 ? QStringLiteral("%1 %2").arg(price, 0, 'f', 2).arg(QString::fromStdString(m_context.shed.shed().currency))
                                 : QStringLiteral("–"));
    if (!m_context.document.hasAntenna())
        return;
    const Rigging& rigging = m_context.document.antenna().workshop.rigging;
    m_hangs->setCurrentIndex(rigging.weight ? 1 : 0);
    for (const auto& [member, edit] : m_fields)
        edit->setValue(rigging.*member, system);
    for (ValueEdit* edit : {m_carries, m_rise, m_reach})
        edit->setValue(edit->value(), system);
}

} // namespace vetchling::app
