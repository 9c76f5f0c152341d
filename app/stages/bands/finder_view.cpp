#include "app/stages/bands/finder_view.h"

#include "app/view/axis.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/shapes/hang.h"
#include "core/study/ratios.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double rulerLeft = 70.0, rulerRight = 16.0, bandHeight = 18.0, freeHeight = 26.0;

/// A tuner's range matters here: told beyond the cap of other figures too.
QString mismatch(double swr) { return QString::number(swr, 'f', swr < 10.0 ? 1 : 0); }

} // namespace

FinderChart::FinderChart(ViewContext& context) : Canvas(context)
{
    setObjectName(QStringLiteral("finderChart"));
    setAccessibleName(tr("Lengths that are no half wave on any wanted band"));
    setMouseTracking(true);
    setMinimumHeight(320);
}

void FinderChart::show(std::shared_ptr<const study::FinderFacts> facts, double now)
{
    m_facts = facts ? std::move(facts) : std::make_shared<const study::FinderFacts>();
    m_now = now;
    update();
}

QRectF FinderChart::ruleArea(const QSizeF& size) const
{
    return {rulerLeft, 26.0, size.width() - rulerLeft - rulerRight, freeHeight + 8.0 + bandHeight * double(m_facts->bands.size())};
}

QRectF FinderChart::solvedArea(const QSizeF& size) const
{
    const QRectF rule = ruleArea(size);
    return {rulerLeft, rule.bottom() + 70.0, rule.width(), std::max(80.0, size.height() - rule.bottom() - 112.0)};
}

double FinderChart::x(double length, const QRectF& area) const
{
    return area.left() + area.width() * (length - m_facts->options.from) / (m_facts->options.to - m_facts->options.from);
}

void FinderChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (m_facts->bands.empty()) {
        const bool wanted =
            std::any_of(m_context.document.design().operation.bands.begin(), m_context.document.design().operation.bands.end(),
                        [](const WantedBand& w) { return w.wish != Wish::No; });
        sketch.text({0.5 * size.width(), 60.0},
                    wanted ? tr("Choose a wire fed at its end, or add one.") : tr("No band is wanted yet: choose some on Coverage."),
                    Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    const QRectF rule = ruleArea(size), solved = solvedArea(size);
    paintRule(sketch, rule);
    paintSolved(sketch, solved);
    const double now = x(m_now, rule);
    if (now >= rule.left() && now <= rule.right()) {
        sketch.line({now, rule.top() - 4}, {now, rule.bottom()}, c.ink, 1.5);
        sketch.line({now, solved.top()}, {now, solved.bottom()}, c.ink, 1.5);
        sketch.label({now + 5, rule.top() - 20}, tr("now %1").arg(lengthWords(m_now, m_context.system())), Qt::AlignLeft | Qt::AlignTop,
                     {c.ink, 12, true});
    }
    if (onScreen() && m_pointer >= rule.left() && m_pointer <= rule.right()) {
        const double length =
            m_facts->options.from + (m_facts->options.to - m_facts->options.from) * (m_pointer - rule.left()) / rule.width();
        sketch.line({m_pointer, rule.top()}, {m_pointer, solved.bottom()}, c.petal, 1.2);
        sketch.card({m_pointer + 10, rule.top() + 4},
                    {lengthWords(length, m_context.system()), tr("%1 % of a half wave from the nearest").arg(m_fromNearest, 0, 'f', 0)},
                    QRectF(4, 4, size.width() - 8, size.height() - 8));
    }
}

/// What the rule leaves free on top, below it each band's half waves with their margin.
void FinderChart::paintRule(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const FreeLengthOptions& o = m_facts->options;
    const QRectF free(area.left(), area.top(), area.width(), freeHeight);
    sketch.text({rulerLeft - 10, free.center().y()}, tr("free"), Qt::AlignRight | Qt::AlignVCenter, {c.ink, 13, true});
    sketch.painter().fillRect(free, c.panel);
    for (std::size_t i = 0; i < m_facts->free.size(); ++i) {
        const FreeInterval& gap = m_facts->free[i];
        const QRectF bar(x(gap.from, free), free.top(), std::max(1.5, x(gap.to, free) - x(gap.from, free)), free.height());
        sketch.painter().fillRect(bar, i < 5 ? c.leaf : c.leafMid);
        if (i < 5 && bar.width() > 14.0)
            sketch.text(bar.center(), QString::number(i + 1), Qt::AlignCenter, {c.paper, 12, true});
    }
    for (std::size_t b = 0; b < m_facts->bands.size(); ++b) {
        const Band& band = m_facts->bands[b];
        const QRectF row(area.left(), free.bottom() + 8.0 + bandHeight * double(b), area.width(), bandHeight - 5.0);
        sketch.text({rulerLeft - 10, row.center().y()}, QString::fromStdString(band.name), Qt::AlignRight | Qt::AlignVCenter,
                    {c.inkSoft, 12});
        for (const HalfWaveZone& zone : m_facts->zones[b]) {
            const double a = std::max(row.left(), x(zone.from, row)), z = std::min(row.right(), x(zone.to, row));
            if (z > a)
                sketch.painter().fillRect(QRectF(a, row.top(), z - a, row.height()), c.fill);
            const double middle = x(0.5 * (zone.from + zone.to), row);
            if (middle > row.left() && middle < row.right() && z - a > 12.0)
                sketch.text({middle, row.center().y()}, QString::number(zone.n), Qt::AlignCenter, {c.inkFaint, 11});
        }
    }
    const bool feet = m_context.system() != units::System::Metric;
    const double unit = feet ? 0.3048 : 1.0;
    for (double tick : niceTicks(o.from / unit, o.to / unit, 14))
        sketch.text({x(tick * unit, area), area.bottom() + 5}, QString::number(tick), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({area.right(), area.bottom() + 21},
                feet ? tr("ft of wire; grey: half waves of each band with their margin")
                     : tr("m of wire; grey: half waves of each band with their margin"),
                Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 12});
}

/// The worst SWR over the wanted bands, one line a ratio.
void FinderChart::paintSolved(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    sketch.text({area.left(), area.top() - 24}, tr("Solved over your soil: worst SWR of the wanted bands behind a transformer of"),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    constexpr double cap = 300.0; // SWR at the top, on a scale of its logarithm
    const auto y = [&](double s) { return area.bottom() - area.height() * std::log(std::clamp(s, 1.0, cap)) / std::log(cap); };
    for (double s : {1.0, 2.0, 5.0, 10.0, 30.0, 100.0, 300.0}) {
        sketch.line({area.left(), y(s)}, {area.right(), y(s)}, c.fill);
        sketch.text({rulerLeft - 10, y(s)}, QString::number(s), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    }
    const auto& map = m_facts->map;
    if (!map)
        return;
    const QColor colours[] = {c.inkFaint, c.sky, c.leaf, c.brick};
    std::vector<std::vector<QPointF>> drawn(std::size(study::drawnRatios));
    for (std::size_t r = 0; r < std::size(study::drawnRatios); ++r) {
        QPainterPath path;
        QPointF last;
        for (std::size_t i = 0; i < map->columns.size(); ++i) {
            const double worst = m_facts->worst[r][i];
            const double px = x(map->columns[i].value, area);
            if (!std::isfinite(worst) || px < area.left() || px > area.right())
                continue;
            last = {px, y(worst)};
            drawn[r].push_back(last);
            path.elementCount() == 0 ? path.moveTo(last) : path.lineTo(last);
        }
        if (path.elementCount() == 0)
            continue;
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(QPen(colours[r], 1.7));
        sketch.painter().drawPath(path);
        sketch.reservePath(path);
    }
    for (std::size_t r = 0; r < drawn.size(); ++r) { // beside its line, from the right, where nothing runs
        std::vector<Sketch::Place> places;
        for (auto p = drawn[r].rbegin(); p != drawn[r].rend(); ++p)
            for (double away : {6.0, 14.0}) {
                places.push_back({*p - QPointF(0.0, away), Qt::AlignRight | Qt::AlignBottom});
                places.push_back({*p + QPointF(0.0, away), Qt::AlignRight | Qt::AlignTop});
            }
        sketch.keepWithin(area);
        sketch.fit(places, tr("%1:1").arg(study::drawnRatios[r]), {colours[r], 12, true});
        sketch.keepWithin({});
    }
    if (map->lobeCeiling) {
        const double ceiling = x(*map->lobeCeiling, area);
        if (ceiling > area.left() && ceiling < area.right()) {
            QPainterPath past;
            past.addRect(QRectF(ceiling, area.top(), area.right() - ceiling, area.height()));
            sketch.hatch(past, c.hairline);
            sketch.label({area.right() - 4, area.top() + 4},
                         tr("lobe of the highest band above %1°").arg(degrees(map->question.aim.elevation), 0, 'f', 0),
                         Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 11, false, c.paper});
        }
    }
}

void FinderChart::mousePressEvent(QMouseEvent* event)
{
    const QRectF rule = ruleArea(size());
    const double part = (event->position().x() - rule.left()) / rule.width();
    if (event->button() == Qt::LeftButton && part >= 0.0 && part <= 1.0)
        emit taken(m_facts->options.from + part * (m_facts->options.to - m_facts->options.from));
}

void FinderChart::mouseMoveEvent(QMouseEvent* event)
{
    m_pointer = event->position().x();
    const QRectF rule = ruleArea(size());
    const FreeLengthOptions& o = m_facts->options;
    m_fromNearest = distanceFromMultiples(o.from + (o.to - o.from) * (m_pointer - rule.left()) / rule.width(), m_facts->bands, o);
    update();
}

void FinderChart::leaveEvent(QEvent*)
{
    m_pointer = -1.0;
    update();
}

FinderView::FinderView(ViewContext& context, BandsDesk& desk, QObject* parent)
    : BandsView(context, desk, parent), m_chart(new FinderChart(context))
{
    connect(m_chart, &FinderChart::taken, this, [this](double length) {
        const auto facts = m_desk.finder();
        take(length, facts ? study::ratioFor(*facts, length) : std::nullopt);
    });
    connect(&desk, &BandsDesk::mapChanged, this, &BandsView::changed);
}

std::string FinderView::lengthKey() const
{
    if (!document().hasAntenna() || document().family().multiples() != shapes::Multiples::All)
        return {};
    const auto tuned = document().family().tuned(document().antenna().shape);
    return tuned.size() == 1 && tuned.front().parameter == "length_m" ? tuned.front().parameter : std::string();
}

const WantedBand* FinderView::lowestWanted() const
{
    for (const WantedBand& w : document().design().operation.bands)
        if (w.wish != Wish::No)
            return &w;
    return nullptr;
}

QString FinderView::fault() const
{
    const auto facts = m_desk.finder();
    return facts && !facts->faults.empty() ? coreWords(facts->faults.front().message, system()) : QString();
}

std::optional<double> FinderView::room() const
{
    const AntennaModel* model = m_context.models.current();
    return model && model->built ? shapes::roomForWire(document().design().site, *model->built) : std::nullopt;
}

QString FinderView::layout() const
{
    if (lengthKey().empty())
        return QStringLiteral("none");
    const std::optional<double> fits = room();
    return fits ? QStringLiteral("wire in %1 m").arg(*fits, 0, 'f', 1) : QStringLiteral("wire");
}

/// From a quarter wave, below which nobody would begin, to a whole one or as much as there is room for; what was typed stays.
void FinderView::chooseRange()
{
    const WantedBand* lowest = lowestWanted();
    m_room = room();
    const bool typed = m_options.from != m_chosen.first || m_options.to != m_chosen.second;
    if (!lowest || (m_antenna == document().current() && typed))
        return;
    m_antenna = document().current();
    m_options.from = std::round(0.25 * wavelength(lowest->band.centre()));
    m_options.to = std::max(m_options.from + 20.0, std::round(wavelength(lowest->band.centre())));
    if (m_room && *m_room < m_options.to) {
        m_options.to = std::floor(10.0 * *m_room) / 10.0;
        m_options.from = std::min(m_options.from, 0.5 * m_options.to);
    }
    m_chosen = {m_options.from, m_options.to};
}

/// Length and ratio in one, where it has a transformer and a ratio is known.
void FinderView::take(double length, std::optional<double> ratio)
{
    if (lengthKey().empty())
        return;
    shapes::Parameters values{{lengthKey(), length}};
    if (ratio && document().family().spec(document().antenna().shape, "transformer_ratio"))
        values["transformer_ratio"] = *ratio;
    document().setParameters(tr("take a length"), values, Compromise::From::Finder);
}

void FinderView::buildLedger(Ledger& ledger)
{
    if (lengthKey().empty()) {
        ledger.note(tr("A length is found here for one wire fed at its end, which goes to a tuner; this antenna is none."));
        QPushButton* add = ledger.button(tr("Add a wire for a tuner"), QStringLiteral("finderAdd"), true);
        connect(add, &QPushButton::clicked, this, &FinderView::wireWanted);
        return;
    }
    chooseRange();
    ledger.heading(tr("By rule"));
    const auto number = [&](const QString& label, units::Quantity quantity, const char* object, double lowest, double highest,
                            double* target) {
        ValueEdit* edit = ledger.value(label, quantity, QLatin1String(object));
        edit->setRange(lowest, highest);
        connect(edit, &ValueEdit::edited, this, [this, target](double value) {
            *target = value;
            emit changed();
        });
        return edit;
    };
    m_margin = number(tr("Margin, %"), units::Quantity::Percent, "finderMargin", 0.0, 49.0, &m_options.marginPercent);
    m_measure = ledger.choice(tr("of"), {tr("half a wave"), tr("the multiple")}, QStringLiteral("finderMeasure"));
    connect(m_measure, &QComboBox::activated, this, [this](int index) {
        m_options.measure = index == 1 ? DistanceMeasure::Multiple : DistanceMeasure::HalfWave;
        emit changed();
    });
    m_slow = number(tr("Velocity factor from"), units::Quantity::Plain, "finderSlow", 0.3, 1.0, &m_options.lowestVelocity);
    m_fast = number(tr("to"), units::Quantity::Plain, "finderFast", 0.3, 1.0, &m_options.highestVelocity);
    m_slow->setHelp(tr("of the wire: its jacket, its height and its ends; bare wire in the clear is near 1"));
    m_from = number(tr("Shortest wire"), units::Quantity::Length, "finderFrom", 0.1, 5000.0, &m_options.from);
    m_to = number(tr("Longest wire"), units::Quantity::Length, "finderTo", 0.1, 5000.0, &m_options.to);
    if (m_room)
        ledger.note(tr("As it hangs there is room for %1 of wire; a longer one is looked for when you type it.")
                        .arg(lengthWords(*m_room, system())));
    m_ranked = ledger.note();
    m_ranked->setObjectName(QStringLiteral("finderRanked"));
    m_takeBest = ledger.button({}, QStringLiteral("finderTake"), true);
    connect(m_takeBest, &QPushButton::clicked, this, [this] {
        if (const auto facts = m_desk.finder(); facts && !facts->free.empty())
            take(facts->free.front().best, study::ratioFor(*facts, facts->free.front().best));
    });
    ledger.line();
    ledger.heading(tr("By solution"));
    m_solved = ledger.note();
    m_solved->setObjectName(QStringLiteral("finderSolved"));
    m_takeSolved = ledger.button({}, QStringLiteral("finderTakeSolved"));
    connect(m_takeSolved, &QPushButton::clicked, this, [this] {
        if (const auto facts = m_desk.finder(); facts && facts->map && !facts->best.empty())
            take(facts->map->columns[facts->best.front().column].value, facts->best.front().ratio);
    });
    ledger.note(
        tr("A wire that is not resonant radiates as well as another; what it costs is lost in transformer, tuner and line. The rule "
           "keeps clear of very high impedances, no more."));
}

void FinderView::refresh()
{
    if (lengthKey().empty())
        m_chart->show(nullptr, 0.0);
    if (!m_margin || lengthKey().empty())
        return;
    m_margin->setValue(m_options.marginPercent, system());
    m_measure->setCurrentIndex(m_options.measure == DistanceMeasure::Multiple ? 1 : 0);
    m_slow->setValue(m_options.lowestVelocity, system());
    m_fast->setValue(m_options.highestVelocity, system());
    m_from->setValue(m_options.from, system());
    m_to->setValue(m_options.to, system());
    m_desk.wantFinder(lengthKey(), m_options);
    const auto facts = m_desk.finder();
    m_chart->show(facts, document().family().value(document().antenna().shape, lengthKey()));
    const auto& free = facts->free;
    QStringList ranked;
    constexpr std::size_t most = 5;
    for (std::size_t i = 0; i < std::min(most, free.size()); ++i)
        ranked << tr("%1.  %2, room for ±%3: %4 % off")
                      .arg(i + 1)
                      .arg(lengthWords(free[i].best, system()),
                           smallWords(std::min(free[i].best - free[i].from, free[i].to - free[i].best), system()))
                      .arg(free[i].distancePercent, 0, 'f', 0);
    m_ranked->setText(!fault().isEmpty() ? fault()
                      : ranked.isEmpty() ? tr("No length keeps that margin on all wanted bands: take a smaller margin.")
                                         : ranked.join(QLatin1Char('\n')));
    const auto takeWords = [&](double length, std::optional<double> ratio) {
        const bool behind = ratio && document().family().spec(document().antenna().shape, "transformer_ratio");
        return behind ? tr("Take %1 behind %2:1").arg(lengthWords(length, system())).arg(*ratio)
                      : tr("Take %1").arg(lengthWords(length, system()));
    };
    m_takeBest->setVisible(!free.empty());
    if (!free.empty())
        m_takeBest->setText(takeWords(free.front().best, study::ratioFor(*facts, free.front().best)));
    m_takeSolved->setVisible(facts->map && !facts->best.empty());
    if (facts->map && !facts->best.empty())
        m_takeSolved->setText(takeWords(facts->map->columns[facts->best.front().column].value, facts->best.front().ratio));
    QStringList solved;
    const auto& map = facts->map;
    const std::vector<study::RatioChoice>& choices = facts->best;
    if (!choices.empty()) {
        for (const study::RatioChoice& choice : choices)
            solved << tr("%1:1 at %2: worst SWR %3")
                          .arg(choice.ratio)
                          .arg(lengthWords(map->columns[choice.column].value, system()), mismatch(choice.worstSwr));
        const study::RatioChoice& best = choices.front();
        solved << tr("Behind %1:1 the tuner meets %2 to %3 Ω, and reactances from %4 to %5 Ω.")
                      .arg(best.ratio)
                      .arg(best.lowestResistance, 0, 'f', 0)
                      .arg(best.highestResistance, 0, 'f', 0)
                      .arg(best.lowestReactance, 0, 'f', 0)
                      .arg(best.highestReactance, 0, 'f', 0)
                      .replace(QLatin1Char('-'), QStringLiteral("−"));
    }
    m_solved->setText(solved.isEmpty() ? tr("Being computed …") : solved.join(QLatin1Char('\n')));
}

QString FinderView::sentence() const
{
    if (const QString words = missing(); !words.isEmpty())
        return words;
    if (lengthKey().empty())
        return tr("Found for a wire fed at its end; %1 is none.").arg(document().shownName());
    const auto facts = m_desk.finder();
    if (!facts || facts->free.empty())
        return fault().isEmpty() ? tr("No length keeps that margin on all wanted bands.") : fault();
    const QString rule = tr("By rule %1 keeps farthest from half waves").arg(lengthWords(facts->free.front().best, system()));
    const auto& map = facts->map;
    const auto best = map && map->progress() >= 1.0 ? facts->best : std::vector<study::RatioChoice>();
    if (best.empty())
        return tr("%1; what that comes to over your soil is being solved.").arg(rule);
    return tr("%1; solved, %2 behind %3:1 has the lowest worst SWR, %4.")
        .arg(rule, lengthWords(map->columns[best.front().column].value, system()))
        .arg(best.front().ratio)
        .arg(mismatch(best.front().worstSwr));
}

QString FinderView::tableText() const
{
    QString out = tr("from m\tto m\tbest m\tdistance %\n");
    const auto facts = m_desk.finder();
    for (const FreeInterval& i : facts ? facts->free : std::vector<FreeInterval>())
        out += QStringLiteral("%1\t%2\t%3\t%4\n")
                   .arg(i.from, 0, 'f', 3)
                   .arg(i.to, 0, 'f', 3)
                   .arg(i.best, 0, 'f', 3)
                   .arg(i.distancePercent, 0, 'f', 1);
    return out;
}

} // namespace vetchling::app
