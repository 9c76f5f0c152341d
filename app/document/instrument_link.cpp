#include "app/document/instrument_link.h"

#include <QCoreApplication>
#include <QPointer>

#ifdef VETCHLING_SERIAL
#include <QSerialPort>
#include <QSerialPortInfo>
#endif

namespace vetchling::app {
namespace {

constexpr qint64 longestLine = 4 << 20; // bytes: a hundred times the longest sweep

} // namespace

InstrumentLink::InstrumentLink(std::unique_ptr<QIODevice> device, QObject* parent) : QObject(parent), m_device(std::move(device))
{
    m_patience.setSingleShot(true);
    connect(&m_patience, &QTimer::timeout, this, [this] {
        if (m_step == Step::Asked)
            sendQuestions(); // it does not know the number; what it had to say is said by now
        else
            finish(false);
    });
    connect(m_device.get(), &QIODevice::readyRead, this, &InstrumentLink::read);
    connect(m_device.get(), &QIODevice::readChannelFinished, this, &InstrumentLink::lose);
#ifdef VETCHLING_SERIAL
    if (auto* port = qobject_cast<QSerialPort*>(m_device.get()))
        connect(port, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
            if (error == QSerialPort::ResourceError || error == QSerialPort::DeviceNotFoundError) // it was pulled out
                lose();
        });
#endif
}

void InstrumentLink::lose()
{
    if (std::exchange(m_broken, true))
        return;
    const QPointer<InstrumentLink> self(this); // an answer may end the link
    while (self && busy())
        finish(false);
    if (self)
        emit broken();
}

InstrumentLink::~InstrumentLink()
{
    m_device->disconnect(this);
    m_device->close();
    m_device.release()->deleteLater(); // it may be what is handing over an answer just now
}

void InstrumentLink::ask(const QStringList& lines, Answered answered, int seconds)
{
    Waiting waiting{lines, {}, 0, std::move(answered), seconds};
    for (const QString& line : lines)
        waiting.expected += line.section(QLatin1Char(' '), 0, 0).endsWith(QLatin1Char('?')) ? 1 : 0;
    m_waiting.push_back(std::move(waiting));
    if (m_waiting.size() == 1)
        send();
}

void InstrumentLink::send()
{
    if (m_broken)
        return finish(false);
    m_device->readAll(); // what nobody asked for
    if (m_step == Step::In)
        sendQuestions();
    else
        bringIntoStep();
}

void InstrumentLink::bringIntoStep()
{
    m_number = m_number % 255 + 1;
    m_step = Step::Asked;
    m_device->write(QStringLiteral("*CLS\n*ESE %1\n*ESE?\n").arg(m_number).toUtf8());
    m_patience.start(m_stepPatience);
}

void InstrumentLink::sendQuestions()
{
    m_step = Step::In;
    const Waiting& now = m_waiting.front();
    m_device->write((now.lines.join(QLatin1Char('\n')) + QLatin1Char('\n')).toUtf8());
    if (now.expected == 0)
        finish(true);
    else
        m_patience.start(1000 * now.seconds);
}

void InstrumentLink::read()
{
    const QPointer<InstrumentLink> self(this); // an answer may end the link
    while (self && m_device->canReadLine())
        take(QString::fromUtf8(m_device->readLine(longestLine)).trimmed());
    if (self && m_device->bytesAvailable() > longestLine) { // a line without an end
        m_device->readAll();
        finish(false);
    }
}

void InstrumentLink::take(const QString& line)
{
    if (m_step == Step::Asked) {
        if (line.toInt() == m_number)
            sendQuestions();
        return;
    }
    if (!busy())
        return; // an answer that came too late
    m_waiting.front().answers << line;
    if (m_waiting.front().answers.size() == m_waiting.front().expected)
        finish(true);
}

void InstrumentLink::finish(bool good)
{
    if (!busy())
        return;
    m_patience.stop();
    if (!good)
        m_step = Step::Lost;
    const Waiting done = std::move(m_waiting.front());
    m_waiting.erase(m_waiting.begin());
    const QPointer<InstrumentLink> self(this);
    if (done.answered)
        done.answered(good ? std::optional(done.answers) : std::nullopt);
    if (self && busy())
        send();
}

#ifdef VETCHLING_SERIAL
std::unique_ptr<QIODevice> openSerial(const QString& name, QString& why)
{
    auto port = std::make_unique<QSerialPort>(name);
    port->setBaudRate(QSerialPort::Baud115200);
    if (port->open(QIODevice::ReadWrite))
        return port;
    why = port->errorString();
    return nullptr;
}

QStringList serialPorts()
{
    QStringList names;
    for (const QSerialPortInfo& info : QSerialPortInfo::availablePorts())
        names << info.systemLocation();
    return names;
}
#else
std::unique_ptr<QIODevice> openSerial(const QString&, QString& why)
{
    why = QCoreApplication::translate("vetchling::app", "this build has no serial ports; install qt6-serialport-dev and build it again");
    return nullptr;
}

QStringList serialPorts() { return {}; }
#endif

} // namespace vetchling::app
