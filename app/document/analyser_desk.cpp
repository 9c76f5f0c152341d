#include "app/document/analyser_desk.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

std::vector<double> numbers(const QString& list)
{
    std::vector<double> out;
    for (const QString& word : list.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
        bool good = false;
        const double value = word.toDouble(&good);
        if (!good || !std::isfinite(value)) // "nan" is a double for Qt
            return {};
        out.push_back(value);
    }
    return out;
}

RawSweep rawSweep(const QString& frequencies, const QString& reflections)
{
    RawSweep raw{numbers(frequencies), {}};
    const std::vector<double> flat = numbers(reflections);
    if (flat.size() != 2 * raw.frequency.size() || !std::is_sorted(raw.frequency.begin(), raw.frequency.end()))
        return {};
    for (std::size_t i = 0; i + 1 < flat.size(); i += 2)
        raw.reflection.emplace_back(flat[i], flat[i + 1]);
    return raw;
}

const char* plugWord(Standard which) { return which == Standard::Open ? "OPEN" : which == Standard::Short ? "SHORT" : "LOAD"; }

MeasuredSweep uncorrected(const RawSweep& raw)
{
    MeasuredSweep sweep;
    for (std::size_t i = 0; i < raw.frequency.size(); ++i)
        sweep.points.push_back({raw.frequency[i], std::nullopt, measuredSwrOf(raw.reflection[i])});
    return sweep;
}

} // namespace

AnalyserDesk::AnalyserDesk(QObject* parent) : QObject(parent)
{
    connect(&m_standIn, &StandIn::ready, this, [this] { connectTo(m_standIn.takeLine()); });
    connect(&m_standIn, &StandIn::stopped, this, [this](const QString& why) {
        stop();
        say(why);
    });
}

AnalyserDesk::~AnalyserDesk() { stop(); }

void AnalyserDesk::say(const QString& trouble)
{
    m_trouble = trouble;
    emit changed();
}

void AnalyserDesk::stop()
{
    m_link.reset();
    m_standIn.stop();
    m_handling.clear();
    m_standards.clear();
    m_calibration.reset();
    m_whenReady = nullptr;
    m_port.clear();
    m_state = State::Off;
}

void AnalyserDesk::startStandIn(const Design& design, const Id& antenna)
{
    if (m_standIn.running() && m_standIn.antenna() == antenna)
        return;
    stop();
    m_trouble.clear();
    m_state = State::Starting;
    m_standIn.start(QStringLiteral("analyser"), design, antenna);
    emit changed();
}

void AnalyserDesk::openPort(const QString& name)
{
    stop();
    m_port = name;
    openLine();
}

/// Calibration and readings stay: it may be the same instrument, plugged in again.
void AnalyserDesk::openLine()
{
    QString why;
    if (std::unique_ptr<QIODevice> port = openSerial(m_port, why))
        connectTo(std::move(port));
    else
        say(tr("%1 cannot be opened: %2").arg(m_port, why));
}

void AnalyserDesk::lose()
{
    m_link.reset();
    m_state = State::Off;
    say(m_port.isEmpty() ? tr("The line to the analyser is broken.")
                         : tr("The analyser is gone from %1. Nothing that was read is lost; plug it in and sweep again.").arg(m_port));
}

void AnalyserDesk::connectTo(std::unique_ptr<QIODevice> device)
{
    m_link = std::make_unique<InstrumentLink>(std::move(device));
    connect(m_link.get(), &InstrumentLink::broken, this, [this] {
        if (!m_standIn.running())
            lose();
    });
    m_state = State::Ready;
    m_trouble.clear();
    if (m_whenReady)
        std::exchange(m_whenReady, nullptr)();
    emit changed();
}

void AnalyserDesk::setHandling(const Handling& handling, double coax, std::size_t configuration)
{
    m_handling = m_standIn.running() ? handlingLines(handling, coax, configuration) : QStringList();
}

void AnalyserDesk::read(const QStringList& before, const Range& range, const std::function<void(const RawSweep&)>& then)
{
    if (m_state == State::Starting) {
        m_whenReady = [=, this] { read(before, range, then); };
        return;
    }
    if (m_state == State::Off && !m_port.isEmpty())
        openLine();
    if (m_state != State::Ready)
        return;
    m_state = State::Reading;
    m_trouble.clear();
    QStringList lines = before;
    lines << QStringLiteral("SENSE:FREQUENCY:START %1").arg(range.from, 0, 'f', 0)
          << QStringLiteral("SENSE:FREQUENCY:STOP %1").arg(range.to, 0, 'f', 0) << QStringLiteral("SENSE:SWEEP:POINTS %1").arg(range.points)
          << QStringLiteral("INITIATE") << QStringLiteral("SYSTEM:ERROR?") << QStringLiteral("CALCULATE:DATA:STIMULUS?")
          << QStringLiteral("CALCULATE:DATA:REFLECTION?");
    m_link->ask(lines, [this, then](const std::optional<QStringList>& answers) {
        m_state = State::Ready;
        if (!answers) {
            say(tr("The analyser does not answer."));
            return;
        }
        if (!answers->at(0).startsWith(QLatin1Char('0'))) {
            say(tr("The analyser says: %1").arg(answers->at(0)));
            return;
        }
        const RawSweep raw = rawSweep(answers->at(1), answers->at(2));
        if (raw.frequency.size() < 2)
            say(tr("The analyser sent something that is no sweep."));
        else
            then(raw);
        emit changed();
    });
    emit changed();
}

void AnalyserDesk::readStandard(Standard which, const Range& range)
{
    read({QStringLiteral("ROUTE:PLUG %1").arg(QLatin1String(plugWord(which)))}, range, [this, which](const RawSweep& raw) {
        for (const auto& [other, sweep] : m_standards)
            if (sweep.frequency != raw.frequency) { // of another range: they are no calibration together
                m_standards.clear();
                break;
            }
        m_standards[which] = raw;
        m_calibration.reset();
        if (m_standards.size() < 3)
            return;
        const auto made = Calibration::from(m_standards[Standard::Open], m_standards[Standard::Short], m_standards[Standard::Load]);
        if (made)
            m_calibration = *made;
        else
            m_trouble = QCoreApplication::translate("core", made.faults().front().message.pattern.c_str());
    });
}

bool AnalyserDesk::hasRead(Standard which) const { return m_standards.count(which) > 0; }

bool AnalyserDesk::calibratedFor(const Range& range) const
{
    constexpr double room = 200.0; // Hz: an instrument's own steps
    return m_calibration && m_calibration->from() <= range.from + room && m_calibration->to() >= range.to - room;
}

void AnalyserDesk::forgetCalibration()
{
    m_standards.clear();
    m_calibration.reset();
    emit changed();
}

void AnalyserDesk::sweep(const Range& range)
{
    QStringList before = m_handling;
    before << QStringLiteral("ROUTE:PLUG ANTENNA");
    read(before, range, [this](const RawSweep& raw) {
        if (m_calibration)
            if (const auto corrected = m_calibration->correct(raw)) {
                emit swept(*corrected, true);
                return;
            }
        emit swept(uncorrected(raw), false);
    });
}

} // namespace vetchling::app
