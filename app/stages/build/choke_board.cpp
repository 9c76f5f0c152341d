#include "app/stages/build/choke_board.h"

#include "app/document/document.h"
#include "app/view/board_table.h"
#include "app/view/feed_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double enough = 1000.0, plenty = 3000.0; // ohm

} // namespace

ChokeBoard::ChokeBoard(ViewContext& context, BuildDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("chokeBoard"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(520);
    setAccessibleName(tr("Choke and transformer on ferrite rings"));
}

QString ChokeBoard::headline() const
{
    const CoreFacts* facts = m_desk.cores();
    if (!facts)
        return {};
    const CoreChoke& choke = facts->choke.choke;
    return choke.rings > 1 ? tr("Wind %1 turns through %2 rings of %3.").arg(choke.turns).arg(choke.rings).arg(coreWords(choke.ring.name))
                           : tr("Wind %1 turns on a ring of %2.").arg(choke.turns).arg(coreWords(choke.ring.name));
}

QString ChokeBoard::sentence() const
{
    const CoreFacts* facts = m_desk.cores();
    if (!facts)
        return tr("No antenna yet: add one with + at the top.");
    const auto& bands = facts->choke.bands;
    if (bands.empty())
        return tr("No band is wished for, so nobody can say whether it chokes enough.");
    const CoreChoke& choke = facts->choke.choke;
    const auto [least, where] = facts->choke.least;
    const QString judged = least >= plenty ? tr("plenty") : least >= enough ? tr("enough where the antenna is balanced") : tr("too little");
    return tr("It chokes with %1 or more on the wished bands, least on %2: %3. Within %4 %, being told by its class alone.")
        .arg(feed::ohmWords(least), QString::fromStdString(bands[where].name), judged)
        .arg(100.0 * choke.ferrite.uncertainty, 0, 'f', 0);
}

void ChokeBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    m_rows.clear();
    const CoreFacts* facts = m_desk.cores();
    if (!facts) {
        sketch.text({0.0, 20.0}, sentence(), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    const CoreChoke& choke = facts->choke.choke;
    const QRectF card(0.0, 4.0, size.width(), 58.0);
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(c.petalPale);
    sketch.painter().drawRoundedRect(card, 6, 6);
    sketch.text(card.topLeft() + QPointF(16, 7), headline(), Qt::AlignLeft | Qt::AlignTop, {c.ink, 18, true});
    sketch.text(card.topLeft() + QPointF(16, 35),
                sketch.theme().elided(tr("%1. It stands %2 W of heat, that is %3 mA on its outside at %4.")
                                          .arg(coreWords(choke.ferrite.name))
                                          .arg(facts->choke.heat, 0, 'f', 1)
                                          .arg(1e3 * facts->choke.current, 0, 'f', 0)
                                          .arg(frequencyWords(facts->low)),
                                      size.width() - 32.0, 12),
                Qt::AlignLeft | Qt::AlignTop, {c.ink, 12});
    const double chartBottom = std::max(220.0, size.height() - 300.0);
    paintChart(sketch, facts->choke, QRectF(58.0, 88.0, size.width() - 76.0, chartBottom - 88.0 - 26.0));
    paintFerrites(sketch, facts->choke, chartBottom + 8.0, size.width());
    paintTransformer(sketch, facts->transformer, size.height() - 98.0, size.width());
}

/// |Z| and its resistance over frequency, both logarithmic, the wished bands as pale columns.
void ChokeBoard::paintChart(Sketch& sketch, const ChokeFacts& facts, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const std::vector<ChokePoint>& points = facts.curve;
    const double from = points.front().frequency, to = points.back().frequency;
    double least = 1000.0, most = 1000.0;
    for (const ChokePoint& p : points) {
        least = std::min(least, std::max(p.impedance.real(), 1.0));
        most = std::max(most, std::abs(p.impedance));
    }
    least = std::pow(10.0, std::floor(std::log10(0.8 * least)));
    most = std::pow(10.0, std::ceil(std::log10(1.2 * most)));
    const auto x = [&](double f) { return area.left() + area.width() * std::log(f / from) / std::log(to / from); };
    const auto y = [&](double z) {
        return area.bottom() - area.height() * std::log(std::clamp(z, least, most) / least) / std::log(most / least);
    };
    for (const Band& b : facts.bands) {
        const double left = x(b.from), right = std::max(x(b.to), left + 3.0);
        sketch.painter().fillRect(QRectF(left, area.top(), right - left, area.height()), c.leafPale);
        sketch.text({0.5 * (left + right), area.top() - 4.0}, QString::fromStdString(b.name), Qt::AlignHCenter | Qt::AlignBottom,
                    {c.inkSoft, 11});
    }
    for (double z : {1.0, 3.0, 10.0, 30.0, 100.0, 300.0, 1e3, 3e3, 1e4, 3e4, 1e5, 3e5, 1e6}) {
        if (z < 0.99 * least || z > 1.01 * most)
            continue;
        sketch.line({area.left(), y(z)}, {area.right(), y(z)}, z == enough ? c.inkFaint : c.hairline, 1.0,
                    z == enough ? Qt::DashLine : Qt::SolidLine);
        sketch.text({area.left() - 6.0, y(z)}, feed::ohmWords(z), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 11});
    }
    for (double f : {1e6, 2e6, 3e6, 5e6, 7e6, 10e6, 14e6, 20e6, 30e6, 50e6, 100e6, 150e6})
        if (f > from && f < to)
            sketch.text({x(f), area.bottom() + 4.0}, QString::number(f / 1e6, 'f', 0), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 11});
    sketch.text({area.right(), area.bottom() + 18.0}, tr("MHz"), Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 11});
    const auto curve = [&](const std::function<double(Complex)>& part, const QPen& pen) {
        QPainterPath path;
        for (const ChokePoint& point : points) {
            const QPointF p(x(point.frequency), y(part(point.impedance)));
            path.elementCount() == 0 ? path.moveTo(p) : path.lineTo(p);
        }
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(pen);
        sketch.painter().drawPath(path);
    };
    curve([](Complex z) { return z.real(); }, QPen(c.petal, 1.8, Qt::DashLine));
    curve([](Complex z) { return std::abs(z); }, QPen(c.leaf, 2.4));
    const ChokePoint &end = points[points.size() - 4], &start = points[6];
    sketch.text({x(end.frequency), y(std::abs(end.impedance)) - 6.0}, tr("impedance"), Qt::AlignRight | Qt::AlignBottom,
                {c.leaf, 12, false, c.paper});
    sketch.text({x(from) + 6.0, y(start.impedance.real()) + 12.0}, tr("of that resistance: heat"), Qt::AlignLeft | Qt::AlignTop,
                {c.inkSoft, 12, false, c.paper});
}

std::vector<QStringList> ChokeBoard::cells() const
{
    QStringList head{tr("The same turns on")};
    const CoreFacts* facts = m_desk.cores();
    if (!facts)
        return {head};
    for (const Band& b : facts->choke.bands)
        head << QString::fromStdString(b.name);
    std::vector<QStringList> out{head};
    for (const ChokeFacts::OtherFerrite& f : facts->choke.ferrites) {
        QStringList row{coreWords(f.name)};
        for (double ohm : f.ohm)
            row << feed::ohmWords(ohm);
        out.push_back(row);
    }
    return out;
}

void ChokeBoard::paintFerrites(Sketch& sketch, const ChokeFacts& facts, double top, double width)
{
    const Colours& c = sketch.colours();
    const auto rows = cells();
    const int bands = int(rows.front().size()) - 1;
    const double name = 0.32 * width, step = bands > 0 ? std::min(96.0, (width - name) / bands) : 0.0;
    std::vector<BoardTable::Column> heads{{rows.front()[0], 4.0}};
    for (int k = 1; k <= bands; ++k)
        heads.push_back({rows.front()[k], name + step * k - 8.0, Qt::AlignRight});
    BoardTable table(sketch, {0.0, top}, width, heads);
    for (std::size_t r = 1; r < rows.size(); ++r) {
        m_rows.push_back(table.begin(facts.ferrites[r - 1].id == facts.choke.ferrite.id));
        if (onScreen() && hasFocus() && int(r) - 1 == m_row)
            table.mark();
        for (int k = 0; k <= bands; ++k)
            table.cell(std::size_t(k), rows[r][k], c.ink);
    }
}

void ChokeBoard::paintTransformer(Sketch& sketch, const TransformerFacts& facts, double top, double width) const
{
    const Colours& c = sketch.colours();
    sketch.line({0.0, top}, {width, top}, c.hairline);
    const CoreTransformer& t = facts.transformer;
    sketch.text({0.0, top + 8.0},
                m_desk.hasTransformer() ? tr("Transformer: %1 turns on the line's side").arg(t.turns)
                                        : tr("A transformer, if there were one: %1 turns on the line's side").arg(t.turns),
                Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    const struct {
        QString name, value, more;
        bool bad;
    } all[] = {{tr("its winding at %1").arg(frequencyWords(facts.frequency)), feed::ohmWords(facts.magnetising),
                tr("%1 × the line's 50 Ω").arg(facts.magnetising / 50.0, 0, 'f', 1), facts.magnetising < 250.0},
               {tr("core heat at %1 W").arg(facts.power, 0, 'f', 0), tr("%1 W").arg(facts.heat, 0, 'f', 1),
                tr("stands %1 W").arg(facts.stands, 0, 'f', 1), facts.heat > facts.stands},
               {tr("flux"), tr("%1 mT").arg(1e3 * facts.flux, 0, 'f', 1),
                tr("saturates at %1 mT").arg(1e3 * t.ferrite.saturation, 0, 'f', 0), facts.flux > 0.5 * t.ferrite.saturation},
               {tr("turns that do"), QString::number(facts.leastTurns), tr("for five times the line"), t.turns < facts.leastTurns}};
    for (std::size_t i = 0; i < 4; ++i) {
        const double x = width * 0.25 * double(i);
        sketch.text({x, top + 28.0}, all[i].name, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
        sketch.text({x, top + 44.0}, all[i].value, Qt::AlignLeft | Qt::AlignTop, {c.ink, 17, true});
        sketch.text({x, top + 70.0}, all[i].more, Qt::AlignLeft | Qt::AlignTop, {all[i].bad ? c.brick : c.inkSoft, 12});
    }
}

void ChokeBoard::take(int row)
{
    if (row >= 0 && row < int(m_desk.data().ferrites.size()))
        m_desk.edit(tr("choose a ferrite"), {}, [&](Workshop& w) { w.choke.mix = m_desk.data().ferrites[std::size_t(row)].id; });
}

void ChokeBoard::mousePressEvent(QMouseEvent* event)
{
    for (std::size_t i = 0; i < m_rows.size(); ++i)
        if (m_rows[i].contains(event->position())) {
            m_row = int(i);
            take(m_row);
            return;
        }
    Canvas::mousePressEvent(event);
}

void ChokeBoard::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down)
        m_row = std::clamp(m_row + (event->key() == Qt::Key_Up ? -1 : 1), 0, std::max(0, int(m_rows.size()) - 1));
    else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        take(m_row);
    else
        return Canvas::keyPressEvent(event);
    update();
}

ChokePanel::ChokePanel(ViewContext& context, BuildDesk& desk, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk)
{
    ledger.heading(tr("Choke"));
    m_choke = addFields(ledger, &Workshop::choke, QStringLiteral("choke"), tr("Turns"));
    m_giveChoke = ledger.button(tr("Give it to Feed as computed"), QStringLiteral("giveChoke"));
    connect(m_giveChoke, &QPushButton::clicked, &desk, &BuildDesk::giveChokeToFeed);
    ledger.line();
    ledger.heading(tr("Transformer"));
    m_transformer = addFields(ledger, &Workshop::transformer, QStringLiteral("transformer"), tr("Turns, line's side"));
    m_least = ledger.note();
    m_giveTransformer = ledger.button(tr("Give it to Feed as computed"), QStringLiteral("giveTransformer"));
    connect(m_giveTransformer, &QPushButton::clicked, &desk, &BuildDesk::giveTransformerToFeed);
    ledger.line();
    m_source = ledger.note();
    ledger.caution(tr("Cores get hot enough to burn and boxes to melt: feel only after sending, and leave air round them."));
}

ChokePanel::Fields ChokePanel::addFields(Ledger& ledger, CoreWinding Workshop::*member, const QString& prefix, const QString& turns)
{
    Fields fields;
    QStringList ferrites, rings;
    for (const FerriteClass& f : m_desk.data().ferrites)
        ferrites << coreWords(f.name);
    for (const FerriteRing& r : m_desk.data().rings)
        rings << coreWords(r.name);
    const auto change = [this, member](const QString& mergeKey, const std::function<void(CoreWinding&)>& how) {
        m_desk.edit(tr("change the core"), mergeKey, [&](Workshop& w) { how(w.*member); });
    };
    fields.ferrite = ledger.choice(tr("Ferrite"), ferrites, prefix + QStringLiteral("Ferrite"));
    connect(fields.ferrite, &QComboBox::activated, this,
            [this, change](int i) { change({}, [&](CoreWinding& w) { w.mix = m_desk.data().ferrites[std::size_t(i)].id; }); });
    fields.ring = ledger.choice(tr("Ring"), rings, prefix + QStringLiteral("Ring"));
    connect(fields.ring, &QComboBox::activated, this,
            [this, change](int i) { change({}, [&](CoreWinding& w) { w.ring = m_desk.data().rings[std::size_t(i)].id; }); });
    fields.rings = ledger.value(tr("Rings stacked"), units::Quantity::Plain, prefix + QStringLiteral("Rings"));
    fields.rings->setRange(1.0, 20.0);
    connect(fields.rings, &ValueEdit::edited, this, [change, prefix](double value, const QString&, bool dragging) {
        change(dragging ? prefix + QStringLiteral("Rings") : QString(), [&](CoreWinding& w) { w.rings = int(std::lround(value)); });
    });
    fields.turns = ledger.value(turns, units::Quantity::Plain, prefix + QStringLiteral("Turns"));
    fields.turns->setRange(1.0, 60.0);
    connect(fields.turns, &ValueEdit::edited, this, [change, prefix](double value, const QString&, bool dragging) {
        change(dragging ? prefix + QStringLiteral("Turns") : QString(), [&](CoreWinding& w) { w.turns = int(std::lround(value)); });
    });
    return fields;
}

void ChokePanel::show(const Fields& fields, const CoreWinding& winding)
{
    const WorkshopData& data = m_desk.data();
    if (const FerriteClass* f = data.ferrite(winding.mix))
        fields.ferrite->setCurrentIndex(int(f - data.ferrites.data()));
    if (const FerriteRing* r = data.ring(winding.ring))
        fields.ring->setCurrentIndex(int(r - data.rings.data()));
    fields.rings->setValue(winding.rings, m_context.system());
    fields.turns->setValue(winding.turns, m_context.system());
}

void ChokePanel::refresh()
{
    const CoreFacts* facts = m_desk.cores();
    if (!facts)
        return;
    const Workshop& w = m_context.document.antenna().workshop;
    show(m_choke, w.choke);
    show(m_transformer, w.transformer);
    m_giveChoke->setText(m_desk.hasChoke() ? tr("Give it to Feed as computed") : tr("Put it into the feed line"));
    m_giveTransformer->setVisible(m_desk.hasTransformer());
    m_least->setText(tr("%1 turns or more on this core for the lowest wished band.").arg(facts->transformer.leastTurns));
    m_source->setText(QString::fromStdString(facts->choke.choke.ferrite.source));
}

} // namespace vetchling::app
