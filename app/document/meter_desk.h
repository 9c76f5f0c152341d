#pragma once
/// The power meter of those who have only that: the stand-in, its needle, and three channels of a band.

#include "app/document/stand_in.h"

namespace vetchling::app {

class MeterDesk : public QObject {
    Q_OBJECT
public:
    explicit MeterDesk(QObject* parent = nullptr);

    void start(const Design& design, const Id& antenna);
    void stop();
    [[nodiscard]] bool on() const { return m_link != nullptr; }
    [[nodiscard]] const QString& trouble() const { return m_trouble; }

    /// How it hangs, for the next reading.
    void setHandling(const QStringList& lines) { m_handling = lines; }
    /// Sets frequency (Hz), sensitivity (0 to 1) and direction, and reads the needle.
    void read(double frequency, double sensitivity, bool reflected);
    /// Of the scale; its mark is 1.
    [[nodiscard]] double needle() const { return m_needle; }

signals:
    void changed();

private:
    StandIn m_standIn{this};
    std::unique_ptr<InstrumentLink> m_link;
    QStringList m_handling;
    QString m_trouble;
    std::function<void()> m_whenReady;
    double m_needle = 0.0;
};

} // namespace vetchling::app
