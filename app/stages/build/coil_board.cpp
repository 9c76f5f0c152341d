#include "app/stages/build/coil_board.h"

#include "app/document/document.h"
#include "app/stages/build/coil_words.h"
#include "app/view/board_table.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

QString inductanceWords(double henry) { return QStringLiteral("%1 µH").arg(1e6 * henry, 0, 'f', henry < 1e-4 ? 2 : 1); }

QString millimetres(double metres, units::System system) { return valueWords(metres, units::Quantity::WireSize, system); }

QString kilohertz(double hertz) { return QString::number(std::abs(hertz) / 1e3, 'f', std::abs(hertz) < 9.5e3 ? 1 : 0); }

} // namespace

CoilBoard::CoilBoard(ViewContext& context, CoilDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("coilBoard"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(420);
    setAccessibleName(tr("The coil as it is wound, and other windings"));
}

QString CoilBoard::headline() const
{
    const auto known = m_desk.answer();
    if (!known || !known->wound.good())
        return {};
    if (m_desk.standing() != Standing::Whole)
        return m_desk.givenUp() ? tr("Of the coil before the change: go on below the stages.") : tr("Being computed anew …");
    return windWords(known->wound, m_context.system());
}

QString CoilBoard::sentence() const
{
    if (m_desk.coils().empty())
        return tr("This antenna has no coil.");
    const auto known = m_desk.answer();
    if (!m_desk.faults().empty())
        return coreWords(m_desk.faults().front().message, m_context.system());
    if (!known)
        return tr("Being computed …");
    if (!known->wound.good())
        return coreWords(known->wound.fault.message, m_context.system());
    return tr("%1 at %2; %3 of wire a coil, leads left out.")
        .arg(inductanceWords(known->inductance), frequencyWords(known->frequency), lengthWords(known->wound.allWire(), m_context.system()));
}

void CoilBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    m_rows.clear();
    const auto known = m_desk.answer();
    if (!known || !known->wound.good()) {
        sketch.text({0.0, 20.0}, sentence(), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    paintCard(sketch, *known, size.width());
    paintCoil(sketch, *known, {0.0, 86.0, size.width(), 116.0});
    paintFigures(sketch, *known, 218.0, size.width());
    sketch.line({0.0, 284.0}, {size.width(), 284.0}, c.hairline);
    paintTable(sketch, 292.0, size.width(), size.height() - 44.0);
    sketch.text({0.0, size.height() - 36.0}, tr("Turns that touch lose much of the Q. The former carries the pull, not the turns."),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({0.0, size.height() - 20.0},
                tr("Seal the ends of the wire and leave the winding open to dry. High voltage while transmitting: out of reach."),
                Qt::AlignLeft | Qt::AlignTop, {c.brick, 12});
}

void CoilBoard::paintCard(Sketch& sketch, const study::CoilAnswer& known, double width) const
{
    const Colours& c = sketch.colours();
    const QRectF card(0.0, 4.0, width, 66.0);
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(c.petalPale);
    sketch.painter().drawRoundedRect(card, 6, 6);
    sketch.text(card.topLeft() + QPointF(16, 8), sketch.theme().elided(headline(), width - 32.0, 18, true), Qt::AlignLeft | Qt::AlignTop,
                {c.ink, 18, true});
    const double turn = known.perHenry * known.wound.perTurn;
    QString words = tr("One turn moves the dip by %1 kHz").arg(kilohertz(turn));
    if (known.perLever != 0.0 && known.lever.kind == shapes::LeverKind::Cut) {
        const bool metric = m_context.system() == units::System::Metric;
        words += metric ? tr(", a centimetre of %1 by %2: the coil is the coarse one, the ends are the fine one.")
                              .arg(coreWords(known.lever.name), kilohertz(0.01 * known.perLever))
                        : tr(", an inch of %1 by %2: the coil is the coarse one, the ends are the fine one.")
                              .arg(coreWords(known.lever.name), kilohertz(0.0254 * known.perLever));
    } else {
        words += QLatin1Char('.');
    }
    sketch.text(card.topLeft() + QPointF(16, 40), sketch.theme().elided(words, width - 32.0, 12), Qt::AlignLeft | Qt::AlignTop,
                {c.ink, 12});
}

/// The winding to scale, its spare turns quiet, its leads going on to both sides.
void CoilBoard::paintCoil(Sketch& sketch, const study::CoilAnswer& known, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    const Coil& coil = known.wound.coil;
    const double all = known.wound.allTurns(), length = known.wound.allLength(), outer = coil.meanDiameter + coil.wireDiameter;
    const double scale = std::min(0.5 * area.width() / std::max(length, 1e-6), 72.0 / outer);
    const QRectF former(area.center().x() - 0.5 * scale * length - 8.0,
                        area.top() + 8.0 + 0.5 * (72.0 - scale * known.wound.winding.former), scale * length + 16.0,
                        scale * known.wound.winding.former);
    p.setPen(QPen(c.inkFaint, 1.0));
    p.setBrush(c.card);
    p.drawRoundedRect(former, 4, 4);
    const double top = former.center().y() - 0.5 * scale * coil.meanDiameter,
                 bottom = former.center().y() + 0.5 * scale * coil.meanDiameter;
    const double pen = std::clamp(scale * coil.wireDiameter, 1.2, 9.0), left = area.center().x() - 0.5 * scale * length;
    const int turns = int(std::round(all));
    for (int i = 0; i < turns; ++i) {
        const double x = left + scale * coil.pitch * i;
        p.setPen(QPen(i < coil.turns ? c.petal : c.inkFaint, pen, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(x, bottom), QPointF(x + 0.5 * scale * coil.pitch, top));
    }
    p.setPen(QPen(c.leaf, 2.0));
    const double middle = former.center().y();
    p.drawLine(QPointF(area.left() + 40.0, middle), QPointF(former.left(), middle));
    p.drawLine(QPointF(former.left(), middle), QPointF(left, bottom));
    const double tap = left + scale * coil.pitch * coil.turns;
    p.drawLine(QPointF(former.right(), middle), QPointF(area.right() - 40.0, middle));
    p.drawLine(QPointF(former.right(), middle), QPointF(tap, top));
    sketch.dimension({left, area.bottom() - 10.0}, {left + scale * length, area.bottom() - 10.0}, millimetres(length, m_context.system()));
    sketch.text({tap, top - 4.0}, tr("tap"), Qt::AlignHCenter | Qt::AlignBottom, {c.inkSoft, 12});
}

void CoilBoard::paintFigures(Sketch& sketch, const study::CoilAnswer& known, double top, double width) const
{
    const Colours& c = sketch.colours();
    const CoilFigures& f = known.wound.figures;
    const double times = f.selfResonance / known.frequency;
    const struct {
        QString name, figure, more;
    } all[] = {{tr("inductance, with leads"), inductanceWords(known.wound.whole()),
                tr("%1 at low frequency").arg(inductanceWords(f.inductance + known.wound.leads))},
               {tr("Q"), tr("about %1").arg(std::round(f.q / 10.0) * 10.0, 0, 'f', 0), tr("skin and proximity; within a fifth")},
               {tr("self-resonance"), tr("near %1 MHz").arg(f.selfResonance / 1e6, 0, 'f', 0),
                times > 3.0 ? tr("%1 × the band: fine").arg(times, 0, 'f', 1) : tr("%1 × the band: too near").arg(times, 0, 'f', 1)},
               {tr("wire"), lengthWords(known.wound.allWire(), m_context.system()), tr("a coil, without its leads")}};
    for (std::size_t i = 0; i < 4; ++i) {
        const double x = width * 0.25 * double(i);
        sketch.text({x, top}, all[i].name, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
        sketch.text({x, top + 16.0}, all[i].figure, Qt::AlignLeft | Qt::AlignTop, {c.ink, 17, true});
        sketch.text({x, top + 42.0}, sketch.theme().elided(all[i].more, 0.25 * width - 8.0, 12), Qt::AlignLeft | Qt::AlignTop,
                    {i == 2 && times <= 3.0 ? c.brick : c.inkSoft, 12});
    }
}

std::vector<QStringList> CoilBoard::cells() const
{
    const auto known = m_desk.answer();
    if (!known)
        return {};
    std::vector<QStringList> out{
        {tr("former"), tr("turns"), tr("pitch"), tr("long"), tr("wire"), tr("Q"), tr("lost of 100 W"), tr("a turn is")}};
    for (const Wound& w : known->beside)
        out.push_back({millimetres(w.winding.former, m_context.system()), turnWords(w.coil.turns),
                       millimetres(w.coil.pitch, m_context.system()), millimetres(w.allLength(), m_context.system()),
                       lengthWords(w.allWire(), m_context.system()), QString::number(w.figures.q, 'f', 0),
                       tr("%1 W").arg(100.0 * known->lostWith(w), 0, 'f', 1), tr("%1 kHz").arg(kilohertz(known->perHenry * w.perTurn))});
    return out;
}

void CoilBoard::paintTable(Sketch& sketch, double top, double width, double bottom)
{
    const Colours& c = sketch.colours();
    const auto known = m_desk.answer();
    sketch.text({0.0, top}, tr("Other windings that would do; a click takes one"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    const auto rows = cells();
    constexpr double starts[] = {0.0, 0.15, 0.25, 0.37, 0.50, 0.62, 0.71, 0.87};
    std::vector<BoardTable::Column> heads;
    for (std::size_t i = 0; i < std::size(starts); ++i)
        heads.push_back({rows.front()[int(i)], width * starts[i] + 4.0});
    BoardTable table(sketch, {0.0, top + 20.0}, width, heads);
    for (std::size_t r = 1; r < rows.size() && table.bottom() + BoardTable::rowHeight <= bottom; ++r) {
        m_rows.push_back(table.begin(known->beside[r - 1].winding == known->wound.winding));
        if (onScreen() && int(r) - 1 == m_row)
            table.mark();
        for (std::size_t i = 0; i < std::size(starts); ++i)
            table.cell(i, rows[r][int(i)], c.ink);
    }
}

int CoilBoard::rowAt(QPointF p) const
{
    for (std::size_t i = 0; i < m_rows.size(); ++i)
        if (m_rows[i].contains(p))
            return int(i);
    return -1;
}

void CoilBoard::take(int row)
{
    const auto known = m_desk.answer();
    if (known && row >= 0 && row < int(known->beside.size()))
        m_desk.setWinding(known->beside[std::size_t(row)].winding);
}

void CoilBoard::mousePressEvent(QMouseEvent* event) { take(rowAt(event->position())); }

void CoilBoard::keyPressEvent(QKeyEvent* event)
{
    const int count = int(m_rows.size());
    if ((event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) && count > 0)
        m_row = std::clamp(m_row + (event->key() == Qt::Key_Up ? -1 : 1), 0, count - 1);
    else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        take(m_row);
    else
        return Canvas::keyPressEvent(event);
    update();
}

CoilPanel::CoilPanel(ViewContext& context, CoilDesk& desk, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk)
{
    ledger.heading(tr("Wind"));
    QStringList names;
    for (const std::string& key : desk.coils())
        names << coreWords(context.document.family().spec(context.document.antenna().shape, key)->label);
    m_which = ledger.choice(tr("Coil"), names, QStringLiteral("whichCoil"));
    connect(m_which, &QComboBox::activated, this, [this](int index) { m_desk.show(m_desk.coils()[std::size_t(index)]); });
    ledger.setRowVisible(m_which, names.size() > 1);
    const auto size = [&](const QString& label, const char* object, double Winding::*member, double highest) {
        ValueEdit* edit = ledger.value(label, units::Quantity::WireSize, QLatin1String(object));
        m_fields.emplace_back(member, edit);
        edit->setRange(0.0, highest);
        connect(edit, &ValueEdit::edited, this, [this, member](double value, const QString&, bool dragging) {
            Winding w = m_context.document.antenna().winding;
            w.*member = value;
            m_desk.setWinding(w, dragging ? QStringLiteral("winding") : QString());
        });
        return edit;
    };
    size(tr("Former, outside"), "coilFormer", &Winding::former, 5.0)->setRange(1e-3, 5.0);
    size(tr("Wire, its metal"), "coilWire", &Winding::wire, 0.05)->setRange(5e-5, 0.05);
    size(tr("Jacket"), "coilJacket", &Winding::jacket, 0.02);
    size(tr("Further gap"), "coilGap", &Winding::gap, 0.2);
    ValueEdit* spare = ledger.value(tr("Spare turns"), units::Quantity::Plain, QStringLiteral("coilSpare"));
    spare->setRange(0.0, 50.0);
    m_fields.emplace_back(&Winding::spare, spare);
    connect(spare, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        Winding w = m_context.document.antenna().winding;
        w.spare = value;
        m_desk.setWinding(w, dragging ? QStringLiteral("winding") : QString());
    });
    ledger.line();
    ledger.heading(tr("A coil I wound already"));
    m_turns = ledger.value(tr("Turns on that former"), units::Quantity::Plain, QStringLiteral("coilTurns"));
    m_turns->setRange(0.0, 2000.0);
    m_turns->setHelp(tr("0: none"));
    connect(m_turns, &ValueEdit::edited, this, [this](double value, const QString&, bool) { m_desk.setTurnsAtHand(value); });
    m_atHand = ledger.note();
    ledger.line();
    ledger.heading(tr("In the model"));
    m_model = ledger.figure(tr("Q"));
    m_size = ledger.figure(tr("Size"));
    m_take = ledger.button(tr("Take Q and size of this winding"), QStringLiteral("takeWinding"));
    m_take->setToolTip(tr("A coil with a size has its own capacitance; tune it again then"));
    connect(m_take, &QPushButton::clicked, &desk, &CoilDesk::takeWinding);
    m_point = ledger.button(tr("Take it for a point"), QStringLiteral("takePoint"));
    connect(m_point, &QPushButton::clicked, &desk, &CoilDesk::takePoint);
    m_note = ledger.note(tr("An estimate: real wire, former and weather take a tenth to a third more."));
    ledger.caution(
        tr("Soldering its ends: fumes, spitting flux, hot metal; on the bench with air moving, not on a ladder, not in rain. Sending, "
           "nobody touches a coil."));
}

void CoilPanel::refresh()
{
    if (!m_context.document.hasAntenna())
        return;
    const Winding& w = m_context.document.antenna().winding;
    for (const auto& [member, edit] : m_fields)
        edit->setValue(w.*member, m_context.system());
    const auto coils = m_desk.coils();
    m_which->setCurrentIndex(int(std::find(coils.begin(), coils.end(), m_desk.shown()) - coils.begin()));
    m_turns->setValue(m_desk.turnsAtHand(), m_context.system());
    const auto known = m_desk.answer();
    m_atHand->setText(known && known->atHand ? tr("It has %1 at %2, %3 of what is wanted.")
                                                   .arg(inductanceWords(known->atHandInductance), frequencyWords(known->frequency),
                                                        tr("%1 %").arg(100.0 * known->atHandInductance / known->inductance, 0, 'f', 0))
                                             : QString());
    m_model->setText(known && known->assumedQ > 0.0 ? QString::number(known->assumedQ, 'f', 0) : QStringLiteral("–"));
    const bool sized = known && !known->size.inPoint();
    m_size->setText(!known  ? QStringLiteral("–")
                    : sized ? tr("%1 long, %2 thick")
                                  .arg(valueWords(known->size.length, units::Quantity::WireSize, m_context.system()),
                                       valueWords(known->size.diameter, units::Quantity::WireSize, m_context.system()))
                            : tr("a point"));
    m_take->setText(known && !known->hasSize ? tr("Take the Q of this winding") : tr("Take Q and size of this winding"));
    m_take->setEnabled(m_desk.differs());
    m_point->setVisible(sized);
}

} // namespace vetchling::app
