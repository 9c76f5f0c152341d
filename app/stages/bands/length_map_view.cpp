#include "app/stages/bands/length_map_view.h"

#include "app/view/band_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/shapes/loading.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace vetchling::app {
namespace {

constexpr double below = 2.0 / 3.0, above = 1.5; // of the present value, at first

} // namespace

LengthMapView::LengthMapView(ViewContext& context, BandsDesk& desk, QObject* parent)
    : BandsView(context, desk, parent), m_chart(new LengthMapChart(context))
{
    connect(m_chart, &LengthMapChart::taken, this, &LengthMapView::take);
    connect(m_chart, &LengthMapChart::dragEnded, this, [this] { document().endDrag(); });
    connect(m_chart, &LengthMapChart::hotChanged, this, &LengthMapView::refreshFigures);
    connect(&desk, &BandsDesk::mapChanged, this, &BandsView::changed);
}

std::vector<std::string> LengthMapView::dimensions() const
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

const shapes::ParameterSpec* LengthMapView::spec() const { return document().family().spec(document().antenna().shape, m_vary); }

QString LengthMapView::valueText(double value) const
{
    return spec() ? valueWords(value, spec()->quantity, system()) : QString::number(value);
}

void LengthMapView::choose(const std::string& vary)
{
    m_vary = vary;
    const double present = document().family().value(document().antenna().shape, vary);
    m_from = present != 0.0 ? below * present : 0.0;
    m_to = present != 0.0 ? above * present : spec()->highest > 1e3 ? 1.0 : 0.02 * spec()->highest;
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
        names << coreWords(document().family().spec(document().antenna().shape, key)->label);
    m_dimension = ledger.choice(tr("Dimension"), names, QStringLiteral("mapVary"));
    m_dimension->setCurrentIndex(int(std::find(all.begin(), all.end(), m_vary) - all.begin()));
    connect(m_dimension, &QComboBox::activated, this, [this, all](int index) {
        choose(all[std::size_t(index)]);
        emit changed();
    });
    m_fromEdit = ledger.value(tr("From"), spec()->quantity, QStringLiteral("mapFrom"));
    m_toEdit = ledger.value(tr("To"), spec()->quantity, QStringLiteral("mapTo"));
    for (ValueEdit* edit : {m_fromEdit, m_toEdit}) {
        edit->setRange(spec()->lowest, spec()->highest);
        edit->setDesignFrequency(document().antenna().shape.designFrequency);
        connect(edit, &ValueEdit::edited, this, [this, edit](double value) {
            (edit == m_fromEdit ? m_from : m_to) = value;
            emit changed();
        });
    }
    ledger.line();
    ledger.heading(tr("Shade"));
    ledger.note(
        tr("Deep: SWR under 1.5; then under 2, 3 and 6. Paler for what the gain towards %1° lacks. Yellow lines: plain multiples of the "
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
    m_fromEdit->setValue(m_from, system());
    m_toEdit->setValue(m_to, system());
    if (!document().dragging())
        m_desk.wantMap(m_vary, m_from, m_to, m_shift ? m_shift->tried() : std::nullopt);
    const auto map = m_desk.map();
    const QString words = !m_desk.mapFaults().empty() ? coreWords(m_desk.mapFaults().front().message, system()) : tr("Being computed …");
    m_chart->show(map, document().family().value(document().antenna().shape, m_vary), words, m_desk.mapBefore());
    refreshFigures();
    if (m_shift)
        m_shift->refresh();
}

std::optional<std::size_t> LengthMapView::columnShown() const
{
    const auto map = m_desk.map();
    if (!map)
        return std::nullopt;
    if (m_chart->hot())
        return m_chart->hot();
    return map->bestAllRound;
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
    m_takeBest->setVisible(done && map->bestAllRound.has_value());
    m_takeFavourite->setVisible(done && map->bestFavourite && map->bestFavourite != map->bestAllRound);
    if (done && map->bestAllRound)
        m_takeBest->setText(tr("Take %1").arg(valueText(map->columns[*map->bestAllRound].value)));
    if (done && map->bestFavourite)
        m_takeFavourite->setText(
            tr("For %1: %2").arg(bandName(map->question.favourite), valueText(map->columns[*map->bestFavourite].value)));
    QStringList why;
    if (done && map->bestAllRound) {
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
                   ? tr("%1 % of the lengths are solved over your soil …").arg(100.0 * map->progress(), 0, 'f', 0)
                   : tr("Stopped after %1 % of the lengths. Change the range to go on.").arg(100.0 * map->progress(), 0, 'f', 0);
    if (!map->bestAllRound)
        return tr("None of these can be built: choose another range.");
    const study::MapColumn& best = map->columns[*map->bestAllRound];
    const double present = document().family().value(document().antenna().shape, m_vary);
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

void LengthMapView::take(double value, bool dragging) { document().setLever(m_vary, value, dragging, Compromise::From::Map); }

} // namespace vetchling::app
