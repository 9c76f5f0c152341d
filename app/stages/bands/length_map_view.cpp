#include "app/stages/bands/length_map_view.h"

#include "app/view/axis.h"
#include "app/view/band_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/shapes/loading.h"

#include <QStackedWidget>

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

namespace vetchling::app {
LengthMapView::LengthMapView(ViewContext& context, BandsDesk& desk, QObject* parent)
    : BandsView(context, desk, parent), m_stack(new QStackedWidget), m_chart(new LengthMapChart(context)), m_curves(new PairChart(context))
{
    m_curves->setObjectName(QStringLiteral("mapCurves"));
    m_curves->setAccessibleName(tr("Gain, SWR and resistance by height or bearing"));
    m_stack->addWidget(m_chart);
    m_stack->addWidget(m_curves);
    connect(m_curves, &PairChart::taken, this, [this](int choice) {
        if (const auto map = m_desk.map(); map && choice >= 0 && choice < int(m_solvedAt.size()))
            take(m_solvedAt[std::size_t(choice)], false);
    });
    connect(m_chart, &LengthMapChart::taken, this, &LengthMapView::take);
    connect(m_chart, &LengthMapChart::dragEnded, this, [this] { document().endDrag(); });
    connect(m_chart, &LengthMapChart::hotChanged, this, &LengthMapView::refreshFigures);
    connect(&desk, &BandsDesk::mapChanged, this, &BandsView::changed);
}

std::vector<std::string> LengthMapView::lengths() const
{
    std::vector<std::string> all;
    if (!document().hasAntenna())
        return all;
    const shapes::Family& family = document().family();
    const shapes::AntennaShape& shape = document().antenna().shape;
    const auto add = [&](const std::string& key) {
        if (std::find(all.begin(), all.end(), key) == all.end())
            all.push_back(key);
    };
    for (const shapes::TunedLength& t : family.tuned(shape))
        add(t.parameter);
    for (const shapes::Lever& l : family.levers(shape))
        add(l.parameter);
    for (const shapes::ParameterSpec& s : family.specs(shape))
        if (s.group == shapes::coilsGroup && s.choices.empty() && s.key != "coil_q" && !shapes::isCoilSize(s.key))
            add(s.key);
    return all;
}

std::vector<std::string> LengthMapView::dimensions() const
{
    std::vector<std::string> all = lengths();
    for (const std::string& key : m_desk.heights())
        all.push_back(key);
    if (m_desk.turns())
        all.emplace_back(study::turning);
    return all;
}

QString LengthMapView::valueText(double value) const
{
    return m_varied ? valueWords(value, m_varied->spec.quantity, system()) : QString::number(value);
}

void LengthMapView::choose(const std::string& vary)
{
    m_vary = vary;
    m_varied = m_desk.varied(vary);
    if (!m_varied)
        return;
    std::tie(m_from, m_to) = m_desk.usualRange(vary);
    if (m_varied->present == 0.0)
        m_to = m_varied->spec.highest > 1e3 ? 1.0 : 0.02 * m_varied->spec.highest;
    if (m_to < m_from)
        std::swap(m_from, m_to);
}

QString LengthMapView::layout() const
{
    QString key = ShiftPanel::offered(m_context) ? QStringLiteral("shift ") : QString();
    key += QString::fromStdString(document().hasAntenna() ? document().current() + document().antenna().shape.family +
                                                                document().family().layout(document().antenna().shape)
                                                          : std::string()) +
           QString::fromStdString(m_vary);
    for (const WantedBand& w : document().design().operation.bands)
        if (w.wish != Wish::No)
            key += QString::fromStdString("|" + w.id);
    return key;
}

void LengthMapView::buildLedger(Ledger& ledger)
{
    m_figures.clear();
    const std::vector<std::string> all = dimensions();
    if (all.empty())
        return;
    if (m_antenna != document().current() || std::find(all.begin(), all.end(), m_vary) == all.end()) {
        m_antenna = document().current();
        choose(all.front());
    }
    ledger.heading(tr("Vary"));
    QStringList names;
    for (const std::string& key : all)
        names << coreWords(m_desk.varied(key)->label, system());
    m_dimension = ledger.choice(tr("Dimension"), names, QStringLiteral("mapVary"));
    m_dimension->setCurrentIndex(int(std::find(all.begin(), all.end(), m_vary) - all.begin()));
    connect(m_dimension, &QComboBox::activated, this, [this, all](int index) {
        choose(all[std::size_t(index)]);
        emit changed();
    });
    m_fromEdit = ledger.value(tr("From"), m_varied->spec.quantity, QStringLiteral("mapFrom"));
    m_toEdit = ledger.value(tr("To"), m_varied->spec.quantity, QStringLiteral("mapTo"));
    for (ValueEdit* edit : {m_fromEdit, m_toEdit}) {
        edit->setRange(m_varied->spec.lowest, m_varied->spec.highest);
        edit->setDesignFrequency(document().antenna().shape.designFrequency);
        connect(edit, &ValueEdit::edited, this, [this, edit](double value) {
            (edit == m_fromEdit ? m_from : m_to) = value;
            emit changed();
        });
    }
    ledger.line();
    ledger.heading(height() ? tr("What goes up") : turned() ? tr("What turns") : tr("Shade"));
    if (turned())
        ledger.note(
            tr("It turns with its mast. Hatched: there a wire would come into a house, over the fence, or into reach of a power line."));
    else if (height())
        ledger.note(
            m_vary == study::allSupports
                ? tr("All that its supports hold goes up with them; an end on a rope to a peg in the ground stays in the line to it. "
                     "The length stays: tune it where it is to hang.")
                : tr("What this support holds goes up with it; other ends stay in the lines to what holds them. The length stays."));
    else
        ledger.note(tr("Deep: SWR under 1.5; then under 2, 3 and 6. Paler for what the gain towards %1° lacks. Yellow lines: plain "
                       "multiples of the "
                       "rule's resonance.")
                        .arg(document().design().operation.aimElevation, 0, 'f', 0));
    ledger.line();
    m_heading = new QLabel(&ledger);
    m_heading->setProperty("role", "heading");
    ledger.add(m_heading);
    for (const WantedBand& w : document().design().operation.bands)
        if (w.wish != Wish::No)
            m_figures.emplace_back(w.id, ledger.figure(QString::fromStdString(w.band.name)));
    m_takeBest = ledger.button({}, QStringLiteral("takeBest"), true);
    m_takeFavourite = ledger.button({}, QStringLiteral("takeFavourite"));
    QSizePolicy keeps = m_takeBest->sizePolicy(); // what is below does not move under the pointer when the map is there
    keeps.setRetainSizeWhenHidden(true);
    m_takeBest->setSizePolicy(keeps);
    connect(m_takeBest, &QPushButton::clicked, this, [this] {
        if (const auto map = m_desk.map(); map && map->bestAllRound)
            take(map->columns[*map->bestAllRound].value, false);
    });
    connect(m_takeFavourite, &QPushButton::clicked, this, [this] {
        if (const auto map = m_desk.map(); map && map->bestFavourite)
            take(map->columns[*map->bestFavourite].value, false);
    });
    m_why = ledger.note();
    m_why->setObjectName(QStringLiteral("mapWhy"));
    if (ShiftPanel::offered(m_context)) {
        m_shift = std::make_unique<ShiftPanel>(m_context, m_desk, ledger, nullptr);
        connect(m_shift.get(), &ShiftPanel::changed, this, &BandsView::changed);
    }
}

void LengthMapView::forgetLedger()
{
    m_shift.reset();
    m_dimension = nullptr;
    m_heading = nullptr;
    m_figures.clear();
}

void LengthMapView::refresh()
{
    if (!offered() || !m_dimension) {
        m_chart->show(nullptr, 0.0, missing());
        return;
    }
    m_varied = m_desk.varied(m_vary);
    if (!m_varied) {
        m_chart->show(nullptr, 0.0, missing());
        return;
    }
    m_fromEdit->setValue(m_from, system());
    m_toEdit->setValue(m_to, system());
    if (!document().dragging())
        m_desk.wantMap(m_vary, m_from, m_to, m_shift ? m_shift->tried() : std::nullopt);
    const auto map = m_desk.map();
    const QString words = !m_desk.mapFaults().empty() ? coreWords(m_desk.mapFaults().front().message, system()) : tr("Being computed …");
    m_stack->setCurrentWidget(asCurves() ? static_cast<QWidget*>(m_curves) : m_chart);
    if (asCurves())
        showCurves(words);
    else
        m_chart->show(map, m_varied->present, words, m_desk.mapBefore());
    refreshFigures();
    if (m_shift)
        m_shift->refresh();
}

std::optional<std::size_t> LengthMapView::columnShown() const
{
    const auto map = m_desk.map();
    if (!map)
        return std::nullopt;
    if (asCurves()) { // as it hangs
        std::size_t nearest = 0;
        for (std::size_t i = 0; i < map->columns.size(); ++i)
            if (m_varied && std::abs(map->columns[i].value - m_varied->present) < std::abs(map->columns[nearest].value - m_varied->present))
                nearest = i;
        return nearest;
    }
    if (m_chart->hot())
        return m_chart->hot();
    return map->bestAllRound;
}

std::optional<std::size_t> LengthMapView::bandShown() const
{
    const auto map = m_desk.map();
    if (!map)
        return std::nullopt;
    const std::vector<WantedBand>& bands = map->question.question.bands;
    for (const Id& wanted : {document().selectedBand(), map->question.favourite})
        for (std::size_t i = 0; i < bands.size(); ++i)
            if (!wanted.empty() && bands[i].id == wanted)
                return i;
    for (std::size_t i = 0; i < bands.size(); ++i)
        if (bands[i].wish != Wish::No)
            return i;
    return std::nullopt;
}

QString LengthMapView::aimWords(const study::Aim& aim) const
{
    return aim.azimuth
               ? tr("at %1° towards bearing %2°").arg(degrees(aim.elevation), 0, 'f', 0).arg(study::bearingOf(*aim.azimuth), 0, 'f', 0)
               : tr("at %1°, where it is strongest").arg(degrees(aim.elevation), 0, 'f', 0);
}

void LengthMapView::addRows(PairChart::Content& out, const study::LengthMap& map, std::size_t band)
{
    const auto enough = height() && map.progress() >= 1.0 ? map.enoughHeight(band) : std::nullopt;
    for (std::size_t i = 0; i < map.columns.size(); ++i) {
        const study::MapColumn& column = map.columns[i];
        if (column.cells.empty() || !column.cells[band].solved)
            continue;
        const study::MapCell& cell = column.cells[band];
        const bool free = map.question.free.empty() || map.question.free[i];
        if (enough && *enough == column.value && i > 0)
            out.marks.emplace_back(column.value, tr("from here less than 1 dB a metre"));
        m_solvedAt.push_back(column.value);
        out.across.push_back(column.value);
        out.ticks.push_back(valueText(column.value));
        out.blocked.push_back(!free);
        out.hovers.push_back(free ? tr("%1: %2 dBi, %3 dBi straight up, SWR %4, %5 Ω. Click or Enter takes it.")
                                        .arg(valueText(column.value), decibelWords(cell.gain), decibelWords(cell.up),
                                             swrText(cell.lowestSwr), QString::number(cell.resistance, 'f', 0))
                                  : tr("%1: something of the site is in the way there.").arg(valueText(column.value)));
        const double values[] = {cell.gain, cell.up, std::min(cell.lowestSwr, swrCap), cell.resistance};
        for (std::size_t row = 0; row < out.rows.size(); ++row)
            out.rows[row].values.push_back(values[row]);
    }
}

void LengthMapView::showCurves(const QString& words)
{
    m_solvedAt.clear();
    const auto map = m_desk.map();
    const auto band = bandShown();
    if (!map || !band)
        return m_curves->say(words);
    const Colours& c = m_context.theme.colours();
    const Band& shown = map->question.question.bands[*band].band;
    const auto decibels = [](double v) { return tr("%1 dBi").arg(decibelWords(v)); };
    PairChart::Content out;
    out.now = m_varied->present;
    out.axis = tr("%1 on %2; dashed: as it hangs").arg(coreWords(m_varied->label, system()), QString::fromStdString(shown.name));
    out.rows = {{tr("Gain %1").arg(aimWords(map->question.aim)), {}, decibels, c.leaf, false},
                {tr("Gain straight up"), {}, decibels, c.sky, false},
                {tr("Lowest SWR"), {}, [](double v) { return swrText(v); }, c.ink, false},
                {tr("Resistance there, at the line"), {}, [](double v) { return tr("%1 Ω").arg(v, 0, 'f', 0); }, c.brick, false}};
    if (turned()) // the others know no bearing
        out.rows.resize(1);
    addRows(out, *map, *band);
    if (out.across.size() < 2)
        return m_curves->say(map->progress() < 1.0 ? words : tr("This band is not solved for any of these."));
    const bool feet = height() && system() != units::System::Metric;
    const double unit = feet ? 0.3048 : 1.0;
    const QString tickWords = turned() ? tr("%1°") : feet ? tr("%1 ft") : tr("%1 m");
    for (double tick : niceTicks(out.across.front() / unit, out.across.back() / unit, 12))
        out.scale.emplace_back(tick * unit, tickWords.arg(tick));
    const double half = 0.5 * wavelength(shown.centre());
    if (height() && half > out.across.front() && half < out.across.back())
        out.marks.emplace_back(half, tr("half a wave"));
    if (turned() && map->question.aim.azimuth)
        out.marks.emplace_back(study::bearingOf(*map->question.aim.azimuth), tr("wanted"));
    m_curves->show(std::move(out));
}

QString LengthMapView::turnSentence(const study::LengthMap& map) const
{
    const auto band = bandShown();
    std::optional<std::size_t> best;
    std::size_t free = 0;
    for (std::size_t i = 0; band && i < map.columns.size(); ++i) {
        const study::MapColumn& column = map.columns[i];
        if (column.cells.empty() || !column.cells[*band].solved || !map.question.free[i])
            continue;
        ++free;
        if (!best || column.cells[*band].gain > map.columns[*best].cells[*band].gain)
            best = i;
    }
    if (!best)
        return tr("There is no bearing at which nothing of the site is in its way.");
    const QString reach =
        free == map.columns.size()
            ? tr("It stands free all round.")
            : tr("Hatched: there something of the site is in its way (%1 of %2 bearings are free).").arg(free).arg(map.columns.size());
    if (!map.question.aim.azimuth)
        return reach + QLatin1Char(' ') + tr("No bearing is wanted: give one under Sky, and judge the bands by it.");
    return reach + QLatin1Char(' ') +
           tr("On %1 it brings most %2 when it lies along %3: %4 dBi.")
               .arg(QString::fromStdString(map.question.question.bands[*band].band.name), aimWords(map.question.aim),
                    valueText(map.columns[*best].value), decibelWords(map.columns[*best].cells[*band].gain));
}

QString LengthMapView::heightSentence(const study::LengthMap& map) const
{
    const auto band = bandShown();
    const auto at = columnShown();
    if (!band || !at || map.columns[*at].cells.empty() || !map.columns[*at].cells[*band].solved)
        return tr("None of these heights can be told for this band.");
    const Band& shown = map.question.question.bands[*band].band;
    const study::MapCell& cell = map.columns[*at].cells[*band];
    QString words =
        tr("On %1 it brings %2 dBi towards %3° and %4 dBi straight up as it hangs; half a wave is %5.")
            .arg(QString::fromStdString(shown.name), decibelWords(cell.gain), QString::number(degrees(map.question.aim.elevation), 'f', 0),
                 decibelWords(cell.up), lengthWords(0.5 * wavelength(shown.centre()), system(), 1));
    if (const auto enough = map.enoughHeight(*band))
        words += *enough > map.columns.front().value
                     ? QLatin1Char(' ') + tr("Above %1 another metre brings less than 1 dB.").arg(lengthWords(*enough, system(), 1))
                     : QLatin1Char(' ') + tr("Nowhere here does another metre bring 1 dB.");
    return words;
}

void LengthMapView::refreshFigures()
{
    const auto map = m_desk.map();
    const auto column = columnShown();
    if (!m_heading)
        return;
    const study::MapColumn* shown = map && column && *column < map->columns.size() ? &map->columns[*column] : nullptr;
    m_heading->setText(shown ? tr("At %1").arg(valueText(shown->value)) : tr("At a length"));
    for (const auto& [band, figure] : m_figures) {
        QString words = QStringLiteral("–");
        for (std::size_t i = 0; shown && i < shown->cells.size(); ++i)
            if (map->question.question.bands[i].id == band && shown->cells[i].solved)
                words = shown->cells[i].lowestSwr <= map->question.question.limit ? swrText(shown->cells[i].lowestSwr)
                        : shown->cells[i].lowestSwr <= 5.0                        ? tr("%1, tuner").arg(swrText(shown->cells[i].lowestSwr))
                                                                                  : swrText(shown->cells[i].lowestSwr);
        figure->setText(words);
    }
    const bool done = map && map->progress() >= 1.0;
    m_takeBest->setVisible(done && !asCurves() && map->bestAllRound.has_value());
    m_takeFavourite->setVisible(done && !asCurves() && map->bestFavourite && map->bestFavourite != map->bestAllRound);
    if (done && map->bestAllRound)
        m_takeBest->setText(tr("Take %1").arg(valueText(map->columns[*map->bestAllRound].value)));
    if (done && map->bestFavourite)
        m_takeFavourite->setText(
            tr("For %1: %2").arg(bandName(map->question.favourite), valueText(map->columns[*map->bestFavourite].value)));
    QStringList why;
    if (done && map->bestAllRound && !asCurves()) {
        const study::MapColumn& best = map->columns[*map->bestAllRound];
        why << tr("Score %1: three for each must, one for each nice band, by the part of it under %2.")
                   .arg(best.score, 0, 'f', 1)
                   .arg(map->question.question.limit);
    }
    if (map && map->lobeCeiling)
        why << tr("Beyond %1 the main lobe of the highest band rises past %2°.")
                   .arg(valueText(*map->lobeCeiling))
                   .arg(degrees(map->question.aim.elevation), 0, 'f', 0);
    m_why->setText(why.join(QLatin1Char(' ')));
}

QString LengthMapView::sentence() const
{
    if (const QString words = missing(); !words.isEmpty())
        return words;
    const auto map = m_desk.map();
    if (!map)
        return m_desk.mapFaults().empty() ? tr("Being computed …") : coreWords(m_desk.mapFaults().front().message, system());
    if (map->progress() < 1.0)
        return m_desk.mapping()
                   ? (asCurves() ? tr("%1 % of this is solved over your soil …") : tr("%1 % of the lengths are solved over your soil …"))
                         .arg(100.0 * map->progress(), 0, 'f', 0)
                   : tr("Stopped after %1 % of the lengths. Change the range to go on.").arg(100.0 * map->progress(), 0, 'f', 0);
    if (!map->bestAllRound)
        return tr("None of these can be built: choose another range.");
    if (asCurves())
        return height() ? heightSentence(*map) : turnSentence(*map);
    const study::MapColumn& best = map->columns[*map->bestAllRound];
    const double present = m_varied ? m_varied->present : 0.0;
    std::size_t nearest = 0;
    for (std::size_t i = 0; i < map->columns.size(); ++i)
        if (std::abs(map->columns[i].value - present) < std::abs(map->columns[nearest].value - present))
            nearest = i;
    return tr("Wanted bands at %1: %2; at your %3: %4. Click to take a length, drag to try.")
        .arg(valueText(best.value), tallyWords(map->tally(*map->bestAllRound)), valueText(present), tallyWords(map->tally(nearest)));
}

QString LengthMapView::tableText() const
{
    const auto map = m_desk.map();
    if (!map)
        return {};
    QString out = tr("value");
    for (const WantedBand& w : map->question.question.bands)
        out += QStringLiteral("\t") + QString::fromStdString(w.band.name);
    out += tr("\tscore\n");
    for (const study::MapColumn& column : map->columns) {
        out += QString::number(column.value);
        for (const study::MapCell& cell : column.cells)
            out += cell.solved ? QStringLiteral("\t%1").arg(cell.lowestSwr, 0, 'f', 2) : QStringLiteral("\t");
        out += QStringLiteral("\t%1\n").arg(column.score, 0, 'f', 2);
    }
    return out;
}

void LengthMapView::take(double value, bool dragging) { m_desk.takeFromMap(m_vary, value, dragging); }

} // namespace vetchling::app
