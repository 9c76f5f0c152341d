/// A stand-in instrument in a process of its own: it listens on a local socket and answers line by line.
#include "core/files/data.h"
#include "core/files/design_file.h"
#include "sim/analyser.h"
#include "sim/power_meter.h"

#include <QCommandLineParser>
#include <QCoreApplication>
#include <QLocalServer>
#include <QLocalSocket>

#include <cstdio>
#include <functional>
#include <memory>

namespace {

using Answer = std::function<std::string(const std::string&)>;

constexpr qint64 longestLine = 4096;

int fail(const QString& words)
{
    std::fputs((words + QLatin1Char('\n')).toUtf8().constData(), stderr);
    return 2;
}

void serve(QLocalSocket* socket, const Answer& answer)
{
    QObject::connect(socket, &QLocalSocket::disconnected, socket, &QObject::deleteLater);
    QObject::connect(socket, &QLocalSocket::readyRead, socket, [socket, answer] {
        while (socket->canReadLine()) {
            const std::string reply = answer(socket->readLine(longestLine).toStdString());
            if (!reply.empty())
                socket->write(QByteArray::fromStdString(reply + '\n'));
        }
    });
}

} // namespace

int main(int argc, char** argv)
{
    using namespace vetchling;
    QCoreApplication app(argc, argv);
    QCommandLineParser options;
    options.setApplicationDescription(QStringLiteral("A made-up analyser or power meter on a made-up antenna, for trying and practising."));
    options.addPositionalArgument(QStringLiteral("instrument"), QStringLiteral("analyser or meter"));
    options.addOptions({{QStringLiteral("design"), QStringLiteral("design file"), QStringLiteral("file")},
                        {QStringLiteral("antenna"), QStringLiteral("id of the antenna; the first one if left out"), QStringLiteral("id")},
                        {QStringLiteral("seed"), QStringLiteral("which of the antennas that the plan could have become"),
                         QStringLiteral("number"), QStringLiteral("1")},
                        {QStringLiteral("listen"), QStringLiteral("name of the local socket"), QStringLiteral("name")}});
    options.addHelpOption();
    options.process(app);
    const QString kind = options.positionalArguments().value(0);
    if (kind != QStringLiteral("analyser") && kind != QStringLiteral("meter"))
        return fail(QStringLiteral("instrument: say which one, analyser or meter"));
    const auto design = files::readDesign(options.value(QStringLiteral("design")).toStdString());
    if (!design)
        return fail(QString::fromStdString(design.firstFault()));
    const std::string id = options.value(QStringLiteral("antenna")).toStdString();
    const Antenna* antenna = id.empty() && !design->antennas.empty() ? &design->antennas.front() : findAntenna(*design, id);
    if (!antenna)
        return fail(QStringLiteral("antenna: the design has none of that id"));
    const unsigned seed = options.value(QStringLiteral("seed")).toUInt();
    sim::World world(*design, *antenna, seed, {{}, "line", {}, {{"k1_dB_per_100m", 1.1}, {"k2_dB_per_100m", 0.01}}, {}, {}, {}});
    Answer answer;
    if (kind == QStringLiteral("analyser")) {
        auto analyser = std::make_shared<sim::Analyser>(std::move(world), InstrumentFaults{}, seed);
        answer = [analyser](const std::string& line) { return analyser->answer(line); };
    } else {
        auto meter = std::make_shared<sim::PowerMeter>(std::move(world), design->operation.power, seed);
        answer = [meter](const std::string& line) { return meter->answer(line); };
    }
    QLocalServer server;
    server.setSocketOptions(QLocalServer::UserAccessOption);
    const QString name = options.value(QStringLiteral("listen"));
    QLocalServer::removeServer(name);
    if (!server.listen(name))
        return fail(QStringLiteral("listen: %1").arg(server.errorString()));
    QObject::connect(&server, &QLocalServer::newConnection, &server, [&] {
        while (QLocalSocket* socket = server.nextPendingConnection()) {
            QObject::connect(socket, &QLocalSocket::disconnected, &app, &QCoreApplication::quit);
            serve(socket, answer);
        }
    });
    std::puts("listening");
    std::fflush(stdout);
    return QCoreApplication::exec();
}
