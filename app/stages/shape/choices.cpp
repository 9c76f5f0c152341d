#include "app/stages/shape/choices.h"

#include "app/view/old_figures.h"
#include "app/view/words.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

Choices::Choices(ViewContext& context, QObject* parent)
    : QObject(parent), m_context(context), m_desk(context.document, context.solver), m_chart(new PairChart(context))
{
    context.add(m_desk.waitings());
    paleWhileOld(m_desk.waitings(), m_chart);
    connect(&m_desk, &ChoicesDesk::ready, this, &Choices::ready);
    connect(m_chart, &PairChart::taken, this, &Choices::take);
}

bool Choices::offers(Kind kind) const
{
    if (!m_context.document.hasAntenna())
        return false;
    const shapes::Family& family = m_context.document.family();
    return kind == Kind::Trade ? !family.trades().empty() : family.spec(m_context.document.antenna().shape, "radial_count") != nullptr;
}

QStringList Choices::pairs() const
{
    QStringList all;
    if (!m_context.document.hasAntenna())
        return all;
    const shapes::Family& family = m_context.document.family();
    for (const shapes::Trade& t : family.trades())
        all << coreWords(family.spec(m_context.document.antenna().shape, t.free)->label);
    return all.size() > 1 ? all : QStringList();
}

QString Choices::refresh(Kind kind)
{
    m_desk.want(kind, kind == Kind::Trade ? m_pair : 0);
    const QString waiting = tr("Being computed over your soil …");
    const auto curve = m_desk.curve();
    if (!curve) {
        m_chart->say(m_desk.busy() || m_desk.faults().empty() ? waiting : coreWords(m_desk.faults().front().message, m_context.system()));
        return tr("All of these are resonant at %1.").arg(frequencyWords(m_context.document.antenna().shape.designFrequency));
    }
    return std::visit(
        [&](const auto& choices) {
            m_chart->show(content(choices));
            return sentence(choices);
        },
        *curve);
}

QString Choices::words(const std::string& parameter, double value) const
{
    const shapes::ParameterSpec* spec = m_context.document.family().spec(m_context.document.antenna().shape, parameter);
    return valueWords(value, spec->quantity, m_context.system());
}

PairChart::Content Choices::content(const study::TradeCurve& curve) const
{
    const Colours& c = m_context.theme.colours();
    const shapes::Family& family = m_context.document.family();
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const QString free = coreWords(family.spec(shape, curve.what.free)->label);
    PairChart::Content out;
    out.axis = tr("%1; dashed: as it is").arg(free);
    out.now = family.value(shape, curve.what.free);
    out.rows = {{coreWords(family.spec(shape, curve.what.solved)->label),
                 {},
                 [this, key = curve.what.solved](double v) { return words(key, v); },
                 c.petal},
                {tr("Width under 2:1"), {}, [](double v) { return tr("%1 kHz").arg(v / 1e3, 0, 'f', 0); }, c.leaf},
                {tr("Resistance at resonance"), {}, [](double v) { return tr("%1 Ω").arg(v, 0, 'f', 0); }, c.sky},
                {tr("Into the sky"), {}, [](double v) { return tr("%1 %").arg(v, 0, 'f', 0); }, c.brick}};
    for (const study::TradePoint& p : curve.points) {
        out.across.push_back(p.free);
        out.ticks.push_back(words(curve.what.free, p.free));
        out.hovers.push_back(tr("%1 %2; the longest piece to pack is %3")
                                 .arg(free, words(curve.what.free, p.free), lengthWords(p.longestPiece, m_context.system())));
        const double values[] = {p.solved, p.width, p.resistance, 100.0 * p.efficiency};
        for (std::size_t row = 0; row < out.rows.size(); ++row)
            out.rows[row].values.push_back(values[row]);
    }
    return out;
}

/// Counts are drawn by their logarithm: 2 to 4 matters as much as 16 to 32.
PairChart::Content Choices::content(const study::RadialCurve& curve) const
{
    const Colours& c = m_context.theme.colours();
    PairChart::Content out;
    out.axis = tr("number of radials; dashed: as it is");
    out.now = std::log2(std::max(1.0, m_context.document.family().value(m_context.document.antenna().shape, "radial_count")));
    out.best = curve.enough;
    out.bestWords = tr("more gains less than %1 dB").arg(study::worthIt);
    out.rows = {{tr("Strongest lobe"), {}, [](double v) { return tr("%1 dBi").arg(v, 0, 'f', 2); }, c.leaf, false},
                {tr("Into the sky"), {}, [](double v) { return tr("%1 %").arg(v, 0, 'f', 1); }, c.brick, false},
                {tr("Resistance at resonance"), {}, [](double v) { return tr("%1 Ω").arg(v, 0, 'f', 1); }, c.sky, false},
                {tr("Length of each"), {}, [this](double v) { return lengthWords(v, m_context.system()); }, c.petal}};
    for (const study::RadialPoint& p : curve.points) {
        out.across.push_back(std::log2(double(p.count)));
        out.ticks.push_back(QString::number(p.count));
        out.hovers.push_back(tr("%1 radials of %2; radiator %3")
                                 .arg(p.count)
                                 .arg(lengthWords(p.length, m_context.system()), lengthWords(p.radiator, m_context.system())));
        const double values[] = {p.gain, 100.0 * p.efficiency, p.resistance, p.length};
        for (std::size_t row = 0; row < out.rows.size(); ++row)
            out.rows[row].values.push_back(values[row]);
    }
    return out;
}

QString Choices::sentence(const study::TradeCurve& curve) const
{
    const auto cost = [&](const study::TradePoint& p) {
        return tr("%1: %2 kHz under 2:1, %3 % into the sky")
            .arg(words(curve.what.free, p.free))
            .arg(p.width / 1e3, 0, 'f', 0)
            .arg(100.0 * p.efficiency, 0, 'f', 0);
    };
    return tr("%1; %2. All of these are resonant: click a pair to take it.").arg(cost(curve.points.front()), cost(curve.points.back()));
}

QString Choices::sentence(const study::RadialCurve& curve) const
{
    const study::RadialPoint& enough = curve.points[curve.enough];
    return tr("From %1 of wire: %2 radials of %3 are enough, more of them gain less than %4 dB. All are resonant: click one to take it.")
        .arg(lengthWords(curve.wire, m_context.system(), 1))
        .arg(enough.count)
        .arg(lengthWords(enough.length, m_context.system()))
        .arg(study::worthIt);
}

void Choices::take(int choice)
{
    const auto curve = m_desk.curve();
    if (!curve || choice < 0)
        return;
    if (const auto* trade = std::get_if<study::TradeCurve>(&*curve); trade && choice < int(trade->points.size())) {
        const study::TradePoint& pair = trade->points[std::size_t(choice)];
        m_context.document.setParameters(tr("take a pair"), {{trade->what.free, pair.free}, {trade->what.solved, pair.solved}});
    }
    if (const auto* radials = std::get_if<study::RadialCurve>(&*curve); radials && choice < int(radials->points.size())) {
        const study::RadialPoint& p = radials->points[std::size_t(choice)];
        const auto tuned = m_context.document.family().tuned(m_context.document.antenna().shape);
        m_context.document.setParameters(
            tr("take so many radials"), {{"radial_count", double(p.count)}, {"radial_m", p.length}, {tuned.front().parameter, p.radiator}});
    }
}

} // namespace vetchling::app
