#include "app/stages/bands/settings_chart.h"

#include "app/view/axis.h"
#include "app/view/band_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double settingLine = 27.0, instructionHeight = 40.0, settingsLeft = 64.0, settingsRight = 76.0;

} // namespace

QString settingWords(const shapes::AntennaShape& shape, const std::string& parameter, double value, units::System system)
{
    const auto out = study::sectionsOut(shape, parameter, value);
    if (out && out->sections < shapes::familyOf(shape).value(shape, "section_count")) // what is too long is told as a length
        return SettingsChart::tr("%1 + %2").arg(out->sections).arg(smallWords(out->rest, system));
    const shapes::ParameterSpec* spec = shapes::familyOf(shape).spec(shape, parameter);
    return spec ? valueWords(value, spec->quantity, system) : QString();
}

SettingsChart::SettingsChart(ViewContext& context) : Canvas(context)
{
    setObjectName(QStringLiteral("settingsChart"));
    setAccessibleName(tr("Settings for each band"));
    setAccessibleDescription(tr("Arrows choose a band, Enter takes its setting"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(320);
    connect(&context.document, &Document::bandSelected, this, qOverload<>(&QWidget::update));
}

void SettingsChart::show(std::shared_ptr<const study::SettingChart> chart, const QString& words, const QString& instruction)
{
    m_chart = std::move(chart);
    m_words = words;
    m_instruction = instruction;
    update();
}

/// What is wished for or can be reached, by rising frequency.
std::vector<const study::SettingRow*> SettingsChart::rows() const
{
    std::vector<const study::SettingRow*> all;
    if (!m_chart)
        return all;
    for (const study::SettingRow& row : m_chart->rows)
        if (const WantedBand* band = findBand(m_context.document.design(), row.band); band && (band->wish != Wish::No || row.reached))
            all.push_back(&row);
    return all;
}

std::vector<QStringList> SettingsChart::cells() const
{
    std::vector<QStringList> out;
    if (!m_chart || !m_context.document.hasAntenna())
        return out;
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const shapes::Family& family = m_context.document.family();
    const units::System system = m_context.system();
    const bool links = m_chart->levers.coarse.empty();
    const bool feet = system != units::System::Metric;
    const shapes::ParameterSpec* coarse = links ? nullptr : family.spec(shape, m_chart->levers.coarse);
    const bool isLength = coarse && coarse->quantity == units::Quantity::Length;
    QStringList head{tr("Band"), links                                                    ? tr("Links")
                                 : study::sectionsOut(shape, m_chart->levers.coarse, 1.0) ? tr("Sections out +")
                                                                                          : coreWords(coarse->label)};
    for (const std::string& key : m_chart->levers.fine)
        head << coreWords(family.spec(shape, key)->label);
    head << tr("Under %1").arg(m_context.document.design().operation.swrLimit);
    if (isLength)
        head << (feet ? tr("An inch is") : tr("A centimetre is"));
    head << tr("R");
    out.push_back(head);
    const auto configurations = family.configurations(shape);
    for (const study::SettingRow* row : rows()) {
        const WantedBand* band = findBand(m_context.document.design(), row->band);
        QStringList line{QString::fromStdString(band->band.name)};
        line << (links ? configurationWords(configurations, std::min(row->configuration, configurations.size() - 1))
                       : settingWords(shape, m_chart->levers.coarse, row->values.at(m_chart->levers.coarse), system));
        for (const std::string& key : m_chart->levers.fine)
            line << settingWords(shape, key, row->values.at(key), system);
        const Coverage& c = row->coverage;
        line << (!row->reached              ? row->beyond > 0.0      ? tr("%1 too far").arg(lengthWords(row->beyond, system))
                                              : row->beyond < 0.0    ? tr("%1 too short").arg(lengthWords(-row->beyond, system))
                                              : row->solved && links ? tr("%1 at best").arg(swrText(c.lowestSwr))
                                              : row->solved          ? tr("out of reach")
                                                                     : tr("no")
                              : c.shareUnderLimit >= 1.0 ? tr("all of it")
                 : c.shareUnderLimit > 0.0  ? tr("%1 – %2").arg(c.underFrom / 1e6, 0, 'f', 2).arg(c.underTo / 1e6, 0, 'f', 2)
                                            : tr("nothing; %1 at best").arg(swrText(c.lowestSwr)));
        if (isLength)
            line << (row->slope != 0.0 ? tr("%1 kHz").arg(std::abs(row->slope) * (feet ? 0.0254 : 0.01) / 1e3, 0, 'f', 0) : QString());
        line << (row->solved ? tr("%1 Ω").arg(row->impedance.real(), 0, 'f', 0) : QString());
        out.push_back(line);
    }
    return out;
}

/// Of the width, for each column: what is out of reach has the most to say, and stands beside the slope and R.
std::vector<double> SettingsChart::sharesOf(int columns) const
{
    const bool slopes = columns > 4 + int(m_chart->levers.fine.size()); // band, setting, under, R
    std::vector<double> shares(std::size_t(columns), 1.0);
    shares.front() = 0.7;
    shares.back() = 0.6;
    shares[std::size_t(columns) - (slopes ? 3 : 2)] = 1.5;
    double sum = 0.0;
    for (double share : shares)
        sum += share;
    for (double& share : shares)
        share /= sum;
    return shares;
}

QRectF SettingsChart::tableArea(const QSizeF& size) const
{
    const double height = settingLine * double(rows().size() + 1);
    const bool alone = m_chart && m_chart->levers.coarse.empty(); // links have no curve above them
    return {0.0, alone ? 6.0 : size.height() - instructionHeight - height, size.width(), height};
}

void SettingsChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!m_chart || !m_context.document.hasAntenna()) {
        sketch.text({0.5 * size.width(), 60.0}, m_words, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    const QRectF table = tableArea(size);
    if (!m_chart->levers.coarse.empty() && table.top() > 150.0)
        paintChart(sketch, QRectF(settingsLeft, 10.0, size.width() - settingsLeft - settingsRight, table.top() - 62.0));
    this->table().paint(sketch, table);
    sketch.painter().setFont(sketch.theme().font(13, true));
    sketch.painter().setPen(c.ink);
    sketch.painter().drawText(QRectF(4, table.bottom() + 10, size.width() - 8, instructionHeight - 10), Qt::TextWordWrap, m_instruction);
}

SettingTable SettingsChart::table() const
{
    SettingTable out;
    const std::vector<QStringList> lines = cells();
    if (lines.empty())
        return out;
    const auto shown = rows();
    out.shares = sharesOf(int(lines.front().size()));
    for (std::size_t i = 0; i < lines.size(); ++i)
        out.lines.push_back({lines[i], i > 0 && shown[i - 1]->band == m_context.document.selectedBand(), i > 0 && !shown[i - 1]->reached});
    return out;
}

void SettingTable::paint(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const double y = area.top() + settingLine * double(i);
        if (lines[i].marked)
            sketch.painter().fillRect(QRectF(area.left(), y + 1, area.width(), settingLine - 2), c.leafPale);
        double x = area.left() + 4.0;
        for (std::size_t column = 0; column < shares.size(); ++column) {
            const double wide = shares[column] * area.width();
            sketch.painter().setFont(sketch.theme().font(i == 0 ? 12 : 13, column < 2 && i > 0));
            sketch.painter().setPen(i == 0 ? c.inkSoft : lines[i].out ? c.brick : c.ink);
            const QRectF cell(x, y, wide - 6.0, settingLine);
            const QString words = lines[i].cells.value(qsizetype(column));
            sketch.painter().drawText(cell, Qt::AlignLeft | Qt::AlignVCenter,
                                      sketch.painter().fontMetrics().elidedText(words, Qt::ElideRight, int(cell.width())));
            x += wide;
        }
        sketch.line({area.left(), y + settingLine - 0.5}, {area.right(), y + settingLine - 0.5}, c.hairline);
    }
}

void SettingsChart::paintChart(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const shapes::ParameterSpec* spec = m_context.document.family().spec(shape, m_chart->levers.coarse);
    std::vector<const study::SettingRow*> shown;
    double lowest = HUGE_VAL, highest = -HUGE_VAL;
    for (const study::SettingRow* row : rows())
        if (row->solved) {
            shown.push_back(row);
            lowest = std::min(lowest, row->values.at(m_chart->levers.coarse));
            highest = std::max(highest, row->values.at(m_chart->levers.coarse));
        }
    if (shown.empty() || !spec)
        return;
    if (m_chart->longest > 0.0) {
        lowest = std::min(lowest, m_chart->shortest);
        highest = std::max(highest, m_chart->longest);
    }
    const double room = 0.06 * std::max(highest - lowest, 1e-12);
    lowest -= room;
    highest += room;
    const double from = 0.96 * shown.front()->frequency, to = 1.04 * shown.back()->frequency;
    const auto x = [&](double f) { return area.left() + area.width() * std::log(f / from) / std::log(to / from); };
    const auto y = [&](double value) { return area.bottom() - area.height() * (value - lowest) / (highest - lowest); };
    const bool feet = spec->quantity == units::Quantity::Length && m_context.system() != units::System::Metric;
    const double unit = feet ? 0.3048 : spec->quantity == units::Quantity::Inductance ? 1e-6 : 1.0;
    const QString in = spec->quantity == units::Quantity::Length       ? (feet ? tr("ft") : tr("m"))
                       : spec->quantity == units::Quantity::Inductance ? tr("µH")
                                                                       : QString();
    for (double tick : niceTicks(lowest / unit, highest / unit, 8)) {
        sketch.line({area.left(), y(tick * unit)}, {area.right(), y(tick * unit)}, c.fill);
        sketch.text({area.left() - 8, y(tick * unit)}, tr("%1 %2").arg(tick).arg(in), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    }
    for (const study::SettingRow* row : shown) {
        const Band& band = findBand(m_context.document.design(), row->band)->band;
        const double a = x(std::max(band.from, from)), b = std::max(a + 3.0, x(std::min(band.to, to)));
        sketch.painter().fillRect(QRectF(a, area.top(), b - a, area.height()), c.leafPale);
        sketch.text({0.5 * (a + b), area.bottom() + 5}, QString::number(band.centre() / 1e6, 'f', band.centre() < 1e8 ? 1 : 0),
                    Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    }
    sketch.text({area.right() + 8, area.bottom() + 5}, tr("MHz"), Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 12});
    if (m_chart->longest > 0.0)
        for (const auto& [value, words] : {std::pair(m_chart->longest, tr("longest")), std::pair(m_chart->shortest, tr("shortest"))}) {
            sketch.line({area.left(), y(value)}, {area.right(), y(value)}, c.brick, 1.2, Qt::DashLine);
            sketch.reserveLine({area.left(), y(value)}, {area.right(), y(value)});
            sketch.text({area.right() + 6, y(value)}, words, Qt::AlignLeft | Qt::AlignVCenter, {c.brick, 12});
        }
    QPainterPath line;
    for (std::size_t i = 1; i < shown.size(); ++i) { // lengths go as one over the frequency: straight in that
        const double f0 = shown[i - 1]->frequency, f1 = shown[i]->frequency, v0 = shown[i - 1]->values.at(m_chart->levers.coarse),
                     v1 = shown[i]->values.at(m_chart->levers.coarse);
        constexpr int steps = 24;
        for (int k = i == 1 ? 0 : 1; k <= steps; ++k) {
            const double f = f0 * std::pow(f1 / f0, double(k) / steps), part = (1.0 / f - 1.0 / f0) / (1.0 / f1 - 1.0 / f0);
            const QPointF p(x(f), y(v0 + part * (v1 - v0)));
            line.elementCount() == 0 ? line.moveTo(p) : line.lineTo(p);
        }
    }
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(QPen(c.ink, 1.7));
    sketch.painter().drawPath(line);
    sketch.reservePath(line);
    const double now = m_context.document.family().value(shape, m_chart->levers.coarse);
    const bool nowShown = now > lowest && now < highest;
    if (nowShown) {
        sketch.line({area.left(), y(now)}, {area.right(), y(now)}, c.petal, 1.2, Qt::DotLine);
        sketch.reserveLine({area.left(), y(now)}, {area.right(), y(now)});
    }
    for (const study::SettingRow* row : shown) {
        const QPointF p(x(row->frequency), y(row->values.at(m_chart->levers.coarse)));
        sketch.painter().setPen(QPen(c.ink, 1.2));
        sketch.painter().setBrush(row->reached ? c.petal : c.brick);
        sketch.painter().drawEllipse(p, row->band == m_context.document.selectedBand() ? 6.5 : 4.5,
                                     row->band == m_context.document.selectedBand() ? 6.5 : 4.5);
        std::vector<Sketch::Place> places; // at a corner of its point, where no line runs
        for (double away : {8.0, 14.0, 20.0})
            for (const auto& [aside, side] : {std::pair(away, Qt::AlignLeft), std::pair(-away, Qt::AlignRight)}) {
                places.push_back({p + QPointF(aside, -away), side | Qt::AlignBottom});
                places.push_back({p + QPointF(aside, away), side | Qt::AlignTop});
            }
        sketch.put(places, QString::fromStdString(findBand(m_context.document.design(), row->band)->band.name), {c.ink, 12, true});
    }
    if (nowShown)
        sketch.label({area.right() + 6, y(now)}, tr("now"), Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12});
}

const study::SettingRow* SettingsChart::rowAt(QPointF p) const
{
    const QRectF table = tableArea(size());
    const auto shown = rows();
    const int place = int(std::floor((p.y() - table.top()) / settingLine)) - 1;
    return table.contains(p) && place >= 0 && place < int(shown.size()) ? shown[std::size_t(place)] : nullptr;
}

void SettingsChart::mousePressEvent(QMouseEvent* event)
{
    if (const study::SettingRow* row = rowAt(event->position()))
        m_context.document.selectBand(row->band);
}

void SettingsChart::mouseDoubleClickEvent(QMouseEvent* event)
{
    if (const study::SettingRow* row = rowAt(event->position()))
        emit taken(row->band);
}

void SettingsChart::keyPressEvent(QKeyEvent* event)
{
    const auto shown = rows();
    const auto at =
        std::find_if(shown.begin(), shown.end(), [&](const study::SettingRow* r) { return r->band == m_context.document.selectedBand(); });
    const bool down = event->key() == Qt::Key_Down;
    if ((down || event->key() == Qt::Key_Up) && !shown.empty()) {
        const int place = at == shown.end() ? 0 : std::clamp(int(at - shown.begin()) + (down ? 1 : -1), 0, int(shown.size()) - 1);
        m_context.document.selectBand(shown[std::size_t(place)]->band);
    } else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && at != shown.end()) {
        emit taken((*at)->band);
    } else {
        Canvas::keyPressEvent(event);
    }
}

} // namespace vetchling::app
