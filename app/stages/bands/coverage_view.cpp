#include "app/stages/bands/coverage_view.h"

#include "app/view/band_words.h"
#include "app/view/words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"
#include "core/bands/wanted.h"
#include "core/study/sky.h"

#include <QCheckBox>
#include <QToolButton>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

QStringList wishWords() { return {CoverageView::tr("not wanted"), CoverageView::tr("nice"), CoverageView::tr("must")}; }

/// m a unit of distance as it is asked for.
double distanceUnit(units::System system) { return system != units::System::Metric ? 1609.344 : 1000.0; }

} // namespace

CoverageView::CoverageView(ViewContext& context, BandsDesk& desk, QObject* parent)
    : BandsView(context, desk, parent), m_scroll(new QScrollArea), m_rows(new CoverageRows(context, desk))
{
    connect(&context.variants, &VariantsDesk::comparisonReady, this, &BandsView::changed);
    connect(&context.variants, &VariantsDesk::spreadReady, this, &BandsView::changed);
    m_scroll->setWidgetResizable(true);
    m_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_scroll->setWidget(m_rows);
    m_scroll->setObjectName(QStringLiteral("bandScroll"));
    m_scroll->setAccessibleName(tr("Bands"));
    connect(&desk, &BandsDesk::operatingReady, this, &BandsView::changed);
}

QString CoverageView::sentence() const
{
    if (const QString words = missing(); !words.isEmpty())
        return words;
    const CurvePointer curve = solver().curve();
    const auto all = m_desk.operating();
    const bool together = all && all->curves.size() > 1;
    QString words = tallyWords(m_desk.tally());
    words += together ? tr(", each with its best links.") : tr(".");
    return words + tr("  Circle: lowest SWR.  Triangle: resonance, no reactance.  Hatched: past your limit.");
}

QString CoverageView::tableText() const
{
    QString out = tr("band\tlowest SWR\tat MHz\tR\tX\tpart under limit\tedges\tdBi\tvertical dBi\n");
    const CurvePointer curve = solver().curve();
    const auto all = m_desk.operating();
    for (std::size_t i = 0; curve && i < curve->bands.size(); ++i) {
        const Id& id = curve->question.bands[i].id;
        const study::BandChoice* choice = all ? all->choice(id) : nullptr;
        const Coverage& c = choice && choice->coverage.solved() && all->curves.size() > 1 ? choice->coverage : curve->bands[i];
        if (!c.solved())
            continue;
        out += QStringLiteral("%1\t%2\t%3\t%4\t%5\t%6\t%7 %8")
                   .arg(QString::fromStdString(c.band.name))
                   .arg(c.lowestSwr, 0, 'f', 2)
                   .arg(c.at / 1e6, 0, 'f', 3)
                   .arg(c.impedance.real(), 0, 'f', 1)
                   .arg(c.impedance.imag(), 0, 'f', 1)
                   .arg(c.shareUnderLimit, 0, 'f', 2)
                   .arg(c.lowEdgeSwr, 0, 'f', 2)
                   .arg(c.highEdgeSwr, 0, 'f', 2);
        const auto use = all ? all->uses.find(id) : std::map<Id, study::BandUse>::const_iterator();
        out += all && use != all->uses.end()
                   ? QStringLiteral("\t%1\t%2\n").arg(use->second.gain, 0, 'f', 2).arg(use->second.reference, 0, 'f', 2)
                   : QStringLiteral("\t\t\n");
    }
    return out;
}

QString CoverageView::layout() const
{
    QString key;
    for (const WantedBand& w : document().design().operation.bands)
        key += QString::fromStdString(w.id + "|" + w.band.name + "|");
    if (const WantedBand* selected = findBand(document().design(), document().selectedBand())) {
        key += QString::fromStdString("/" + selected->id);
        for (const Segment& s : selected->segments)
            key += QString::fromStdString("|" + s.name);
    }
    return key + (system() != units::System::Metric ? QStringLiteral("|mi") : QStringLiteral("|km"));
}

void CoverageView::buildLedger(Ledger& ledger)
{
    buildWishes(ledger);
    ledger.line();
    buildSegments(ledger);
    buildJudged(ledger);
    ledger.line();
    ledger.heading(tr("Resonance or match?"));
    m_match = ledger.note();
    m_return = ledger.note();
    m_return->setObjectName(QStringLiteral("returnEffect"));
    ledger.line();
    buildOwnRange(ledger);
    ledger.line();
    if (!m_context.bandPlans.empty())
        ledger.note(tr("Band edges: %1 (%2). Allocations are not a licence: check your own.")
                        .arg(QString::fromStdString(m_context.bandPlans.front().source))
                        .arg(m_context.bandPlans.front().year));
}

void CoverageView::editOperation(const QString& text, const QString& mergeKey, const std::function<void(Operation&)>& change)
{
    document().edit(text, mergeKey, [&](Design& d) { change(d.operation); });
}

void CoverageView::buildWishes(Ledger& ledger)
{
    ledger.heading(tr("What you want to work"));
    QComboBox* start = ledger.choice(
        tr("Start from"), {tr("as chosen"), tr("day, high sun"), tr("day, low sun"), tr("night, high sun"), tr("night, low sun")},
        QStringLiteral("wishStart"));
    start->setToolTip(tr("Bands that are usually open for far contacts then; customary judgement, no forecast"));
    connect(start, &QComboBox::activated, this, [this, start](int index) {
        if (index > 0)
            editOperation(tr("choose bands"), {}, [&](Operation& op) { wishByConditions(op.bands, Conditions(index - 1)); });
        start->setCurrentIndex(0);
    });
    const auto& bands = document().design().operation.bands;
    m_wishes.clear();
    for (std::size_t i = 0; i < bands.size(); ++i) {
        QComboBox* wish = ledger.choice(QString::fromStdString(bands[i].band.name), wishWords(), QStringLiteral("wish%1").arg(i));
        connect(wish, &QComboBox::activated, this, [this, id = bands[i].id](int index) {
            document().edit(tr("change a wish"), {}, [&](Design& d) {
                if (WantedBand* band = findBand(d, id))
                    band->wish = Wish(index);
            });
        });
        m_wishes.push_back(wish);
    }
    QStringList names{tr("none")};
    for (const WantedBand& w : bands)
        names << QString::fromStdString(w.band.name);
    m_favourite = ledger.choice(tr("Favourite"), names, QStringLiteral("favourite"));
    connect(m_favourite, &QComboBox::activated, this, [this](int index) {
        editOperation(tr("choose the favourite band"), {}, [&](Operation& op) {
            op.favourite = index > 0 && index <= int(op.bands.size()) ? op.bands[std::size_t(index - 1)].id : Id();
        });
    });
}

/// Of the band that is looked at.
void CoverageView::buildSegments(Ledger& ledger)
{
    m_segments.clear();
    const WantedBand* selected = findBand(document().design(), document().selectedBand());
    if (!selected || selected->segments.empty())
        return;
    ledger.heading(tr("Of %1").arg(QString::fromStdString(selected->band.name)));
    for (std::size_t i = 0; i < selected->segments.size(); ++i) {
        const Segment& s = selected->segments[i];
        QComboBox* wish = ledger.choice(tr("%1 %2 – %3").arg(coreWords(s.name)).arg(s.from / 1e6, 0, 'f', 3).arg(s.to / 1e6, 0, 'f', 3),
                                        wishWords(), QStringLiteral("segment%1").arg(i));
        connect(wish, &QComboBox::activated, this, [this, id = selected->id, name = s.name](int index) {
            document().edit(tr("change a wish"), {}, [&](Design& d) {
                if (WantedBand* band = findBand(d, id)) {
                    for (Segment& segment : band->segments)
                        if (segment.name == name)
                            segment.wish = Wish(index);
                    band->wish = std::max(band->wish, Wish(index));
                }
            });
        });
        m_segments.push_back(wish);
    }
    ledger.note(tr("Without a wish here all of the band counts alike."));
    ledger.line();
}

void CoverageView::buildJudged(Ledger& ledger)
{
    ledger.heading(tr("Judged by"));
    const auto plain = [&](const QString& label, units::Quantity quantity, const char* object, double lowest, double highest,
                           const QString& text, auto set) {
        ValueEdit* edit = ledger.value(label, quantity, QLatin1String(object));
        edit->setRange(lowest, highest);
        connect(edit, &ValueEdit::edited, this, [this, text, object, set](double value, const QString&, bool dragging) {
            editOperation(text, dragging ? QLatin1String(object) : QString(), [&](Operation& op) { set(op, value); });
        });
        return edit;
    };
    m_limit = plain(tr("SWR limit"), units::Quantity::Plain, "swrLimit", 1.05, 20.0, tr("change SWR limit"),
                    [](Operation& op, double v) { op.swrLimit = v; });
    m_lossLimit = plain(tr("Loss limit"), units::Quantity::Decibel, "lossLimit", 0.1, 60.0, tr("change the loss limit"),
                        [](Operation& op, double v) { op.lossLimit = v; });
    m_lossLimit->setHelp(tr("a band is served where its SWR, with the chain's tuner if there is one, is under the limit on 95 % of it and "
                            "the chain, mismatch included, loses no more than this"));
    m_reference = plain(tr("Reference, Ω"), units::Quantity::Plain, "reference", 1.0, 1e4, tr("change the reference"),
                        [](Operation& op, double v) { op.reference = v; });
    m_power =
        plain(tr("Power"), units::Quantity::Power, "power", 0.001, 1e5, tr("change power"), [](Operation& op, double v) { op.power = v; });
    m_angle = plain(tr("Angle above horizon"), units::Quantity::Angle, "aimAngle", 0.5, 90.0, tr("change the wanted angle"),
                    [](Operation& op, double v) { op.aimElevation = v; });
    const bool miles = system() != units::System::Metric;
    const double unit = distanceUnit(system());
    m_distance = plain(miles ? tr("One hop, miles") : tr("One hop, km"), units::Quantity::Plain, "aimDistance", 1.0, 4000.0,
                       tr("change the wanted distance"), [unit](Operation& op, double v) {
                           op.aimElevation = std::clamp(std::round(10.0 * degrees(study::hopElevation(v * unit))) / 10.0, 0.5, 90.0);
                       });
    m_distance->setHelp(tr("the angle follows, by the F layer at 300 km over a round earth"));
    m_bearing = ledger.value(tr("Towards bearing"), units::Quantity::Angle, QStringLiteral("aimBearing"));
    m_bearing->setRange(0.0, 360.0);
    m_bearing->setHelp(tr("empty: wherever it is strongest at that angle"));
    m_bearing->clearValue(system());
    connect(m_bearing, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        editOperation(tr("change the wanted bearing"), dragging ? QStringLiteral("aimBearing") : QString(),
                      [&](Operation& op) { op.aimBearing = value; });
    });
    connect(m_bearing, &QLineEdit::editingFinished, this, [this] {
        if (!m_bearing->hasValue() && document().design().operation.aimBearing)
            editOperation(tr("change the wanted bearing"), {}, [](Operation& op) { op.aimBearing.reset(); });
    });
    ledger.line();
    ledger.heading(tr("Against a quarter-wave vertical of each band"));
    m_against = ledger.note();
    m_against->setObjectName(QStringLiteral("against"));
}

void CoverageView::buildOwnRange(Ledger& ledger)
{
    ledger.fold(tr("Allocations and own ranges"), QStringLiteral("fold ranges"), document().design().operation.bands.empty());
    QStringList regions;
    for (const BandPlan& plan : m_context.bandPlans)
        regions << QString::fromStdString(plan.name).section(QLatin1Char('('), 0, 0).trimmed();
    m_region = ledger.choice(tr("Allocations"), regions, QStringLiteral("bandPlan"));
    const auto plans = ledger.buttons({{tr("Put in its bands"), QStringLiteral("putPlan")}, {tr("Take out"), QStringLiteral("takePlan")}});
    connect(m_region, &QComboBox::activated, this, &CoverageView::takePlan);
    connect(plans[0], &QPushButton::clicked, this, [this] { takePlan(m_region->currentIndex()); });
    connect(plans[1], &QPushButton::clicked, this, [this] {
        const BandPlan plan = m_context.bandPlans[std::size_t(m_region->currentIndex())];
        editOperation(tr("take out a plan's bands"), {}, [&](Operation& op) { takeOut(plan, op.bands); });
    });
    NameEdit* name = ledger.name(tr("Own range"), QStringLiteral("ownName"));
    name->setPlaceholderText(tr("evening net"));
    ValueEdit* from = ledger.value(tr("From"), units::Quantity::Frequency, QStringLiteral("ownFrom"));
    ValueEdit* to = ledger.value(tr("To"), units::Quantity::Frequency, QStringLiteral("ownTo"));
    for (ValueEdit* edit : {from, to})
        edit->setRange(lowestFrequency, highestFrequency);
    from->setValue(13.5e6, system());
    to->setValue(13.6e6, system());
    QPushButton* add = ledger.button(tr("Add this range"), QStringLiteral("addRange"));
    m_rangeNote = ledger.caution({});
    m_rangeNote->setObjectName(QStringLiteral("rangeNote"));
    connect(add, &QPushButton::clicked, this, [this, name, from, to] {
        if (from->confirm() && to->confirm())
            addRange(name->text().trimmed().toStdString(), from->value(), to->value());
    });
    ledger.endFold();
}

/// Inside a band it is a segment of that band, elsewhere a band of its own.
void CoverageView::addRange(const std::string& name, double from, double to)
{
    std::vector<WantedBand> bands = document().design().operation.bands;
    const std::string called = !name.empty() ? name : tr("own range").toStdString();
    const bool inside = to > from && addSegment(bands, called, from, to, Wish::Nice);
    const bool overlaps = !inside && overlapsAny(bands, from, to);
    m_rangeNote->setText(overlaps       ? tr("That range overlaps a band that is already there without lying inside it; choose another.")
                         : !(to > from) ? tr("The upper end must be above the lower end.")
                                        : QString());
    if (!m_rangeNote->text().isEmpty())
        return;
    if (!inside)
        vetchling::addRange(bands, from, to, Wish::Nice, name);
    editOperation(tr("add a range"), {}, [&](Operation& op) { op.bands = bands; });
}

/// New edges for bands of the same name; the plan's other bands come in, not wanted yet. Wishes stay.
void CoverageView::takePlan(int index)
{
    if (index < 0)
        return;
    const BandPlan plan = m_context.bandPlans[std::size_t(index)];
    editOperation(tr("change allocations"), {}, [&](Operation& op) {
        op.bandPlan = plan.id;
        putIn(plan, op.bands);
    });
}

void CoverageView::refresh()
{
    if (!m_region)
        return;
    const Operation& op = document().design().operation;
    for (std::size_t i = 0; i < m_wishes.size() && i < op.bands.size(); ++i)
        m_wishes[i]->setCurrentIndex(int(op.bands[i].wish));
    if (const WantedBand* selected = findBand(document().design(), document().selectedBand()))
        for (std::size_t i = 0; i < m_segments.size() && i < selected->segments.size(); ++i)
            m_segments[i]->setCurrentIndex(int(selected->segments[i].wish));
    m_favourite->setCurrentIndex(1 + indexOfBand(document().design(), op.favourite));
    for (std::size_t i = 0; i < m_context.bandPlans.size(); ++i)
        if (m_context.bandPlans[i].id == op.bandPlan)
            m_region->setCurrentIndex(int(i));
    m_limit->setValue(op.swrLimit, system());
    m_lossLimit->setValue(op.lossLimit, system());
    m_reference->setValue(op.reference, system());
    m_power->setValue(op.power, system());
    m_angle->setValue(op.aimElevation, system());
    m_distance->setValue(std::round(study::hopDistance(radians(op.aimElevation)) / distanceUnit(system())), system());
    if (op.aimBearing)
        m_bearing->setValue(*op.aimBearing, system());
    else if (!m_bearing->hasFocus())
        m_bearing->clearValue(system());
    m_match->setText(solver().curve() ? resonanceSentence(*solver().curve(), document().selectedBand()) : QString());
    const auto known = m_desk.operatingIsFresh() ? m_desk.operating() : nullptr;
    m_return->setText(known && known->otherReturn ? returnSentence(*known->otherReturn, system()) : QString());
    m_return->setVisible(!m_return->text().isEmpty());
    const auto all = m_desk.operating();
    const auto use = all ? all->uses.find(document().selectedBand()) : std::map<Id, study::BandUse>::const_iterator();
    m_against->setText(all && use != all->uses.end() ? useSentence(use->second, bandName(use->first), op.power)
                                                     : tr("Its base and 16 radials 2 cm above this soil, without a line."));
    m_rows->refresh();
    m_desk.wantOperating();
}

} // namespace vetchling::app
