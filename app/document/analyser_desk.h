#pragma once
/// The analyser at the mast: the stand-in in a process of its own, or one on a serial port; its calibration, and sweeps of what hangs
/// there.

#include "app/document/stand_in.h"
#include "core/trim/as_built.h"

#include <map>
#include <optional>

namespace vetchling::app {

class AnalyserDesk : public QObject {
    Q_OBJECT
public:
    struct Range {
        double from = 0.0, to = 0.0; ///< Hz
        int points = 101;
        friend bool operator==(const Range&, const Range&) = default;
    };
    enum class State { Off, Starting, Ready, Reading };

    explicit AnalyserDesk(QObject* parent = nullptr);
    ~AnalyserDesk() override;

    /// Hangs the stand-in on an antenna as it was built. One that hangs on the same antenna already stays.
    void startStandIn(const Design& design, const Id& antenna);
    void openPort(const QString& name);
    /// A port was opened last: it is opened again for the next sweep where its line broke.
    [[nodiscard]] bool hasPort() const { return !m_port.isEmpty(); }
    void stop();

    [[nodiscard]] State state() const { return m_state; }
    [[nodiscard]] bool standIn() const { return m_standIn.running(); }
    /// What went wrong last; empty if nothing.
    [[nodiscard]] const QString& trouble() const { return m_trouble; }

    /// What stands before a sweep of the stand-in: how the antenna hangs now.
    void setHandling(const Handling& handling, double coax, std::size_t configuration);

    /// Reads a standard that hangs on the plug. With all three read, the calibration is there.
    void readStandard(Standard which, const Range& range);
    [[nodiscard]] bool hasRead(Standard which) const;
    /// Null as long as none is complete.
    [[nodiscard]] const Calibration* calibration() const { return m_calibration ? &*m_calibration : nullptr; }
    [[nodiscard]] bool calibratedFor(const Range& range) const;
    void forgetCalibration();

    /// Reads the antenna; `swept` follows.
    void sweep(const Range& range);

signals:
    void changed();
    /// Corrected where it is calibrated for the range, else as it was read.
    void swept(const MeasuredSweep& sweep, bool corrected);

private:
    void connectTo(std::unique_ptr<QIODevice> device);
    void openLine();
    void lose();
    void say(const QString& trouble);
    void read(const QStringList& before, const Range& range, const std::function<void(const RawSweep&)>& then);

    State m_state = State::Off;
    QString m_trouble, m_port;
    StandIn m_standIn{this};
    std::unique_ptr<InstrumentLink> m_link;
    QStringList m_handling;
    std::map<Standard, RawSweep> m_standards;
    std::optional<Calibration> m_calibration;
    std::function<void()> m_whenReady;
};

} // namespace vetchling::app
