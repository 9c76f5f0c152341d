#include "app/document/meter_desk.h"

#include <cmath>

namespace vetchling::app {

MeterDesk::MeterDesk(QObject* parent) : QObject(parent)
{
    connect(&m_standIn, &StandIn::ready, this, [this] {
        m_link = std::make_unique<InstrumentLink>(m_standIn.takeLine());
        if (m_whenReady)
            std::exchange(m_whenReady, nullptr)();
        emit changed();
    });
    connect(&m_standIn, &StandIn::stopped, this, [this](const QString& why) {
        stop();
        m_trouble = why;
        emit changed();
    });
}

void MeterDesk::start(const Design& design, const Id& antenna)
{
    m_trouble.clear();
    if (!m_standIn.running() || m_standIn.antenna() != antenna)
        stop();
    m_standIn.start(QStringLiteral("meter"), design, antenna);
}

void MeterDesk::stop()
{
    m_link.reset();
    m_standIn.stop();
    m_whenReady = nullptr;
    m_needle = 0.0;
}

void MeterDesk::read(double frequency, double sensitivity, bool reflected)
{
    if (!m_link) {
        m_whenReady = [=, this] { read(frequency, sensitivity, reflected); };
        return;
    }
    QStringList lines = m_handling;
    lines << QStringLiteral("SOURCE:FREQUENCY %1").arg(frequency, 0, 'f', 0) << QStringLiteral("SENSE:GAIN %1").arg(sensitivity, 0, 'f', 4)
          << QStringLiteral("SENSE:DIRECTION %1").arg(reflected ? QStringLiteral("REFLECTED") : QStringLiteral("FORWARD"))
          << QStringLiteral("READ:NEEDLE?") << QStringLiteral("SYSTEM:ERROR?");
    m_link->ask(lines, [this](const std::optional<QStringList>& answers) {
        m_trouble = !answers                                        ? tr("The meter does not answer.")
                    : !answers->last().startsWith(QLatin1Char('0')) ? tr("The meter says: %1").arg(answers->last())
                                                                    : QString();
        bool good = false;
        const double needle = answers ? answers->first().toDouble(&good) : 0.0;
        if (m_trouble.isEmpty() && !(good && std::isfinite(needle)))
            m_trouble = tr("The meter sent something that is no reading.");
        if (m_trouble.isEmpty())
            m_needle = needle;
        emit changed();
    });
}

} // namespace vetchling::app
