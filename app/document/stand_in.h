#pragma once
/// A stand-in instrument in its own process, hung on an antenna as it was built.

#include "app/document/instrument_link.h"
#include "core/trim/as_built.h"

#include <QProcess>
#include <QTemporaryDir>

namespace vetchling::app {

class StandIn : public QObject {
    Q_OBJECT
public:
    explicit StandIn(QObject* parent = nullptr);
    ~StandIn() override;

    /// @param kind "analyser" or "meter". Runs on the antenna already: stays. `ready` or `stopped` follows.
    void start(const QString& kind, const Design& design, const Id& antenna);
    void stop();
    /// The line that was opened, once; null else.
    [[nodiscard]] std::unique_ptr<QIODevice> takeLine() { return std::move(m_line); }
    [[nodiscard]] bool running() const { return m_process != nullptr; }
    /// Antenna it hangs on; empty if none.
    [[nodiscard]] const Id& antenna() const { return m_antenna; }

    /// Removes what programs that were killed left in the temporary directory.
    static void clearLeftovers();

signals:
    void ready(); ///< the line is open, see takeLine
    /// By itself, or because it could not be started; why.
    void stopped(const QString& why);

private:
    void connectTo(const QString& socket);
    void giveUp(const QString& why);
    std::unique_ptr<QTemporaryDir> m_folder; ///< once it is needed; its name tells whose it is
    QProcess* m_process = nullptr;
    std::unique_ptr<QIODevice> m_line;
    bool m_connected = false;
    Id m_antenna;
};

/// How the antenna hangs now, as a stand-in is told.
QStringList handlingLines(const Handling& handling, double coax, std::size_t configuration);

} // namespace vetchling::app
