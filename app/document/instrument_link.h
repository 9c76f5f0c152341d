#pragma once
/// Questions to an instrument over any line that carries text, a local socket or a serial port: one after the other, each with its answers.

#include <QIODevice>
#include <QObject>
#include <QStringList>
#include <QTimer>

#include <functional>
#include <memory>
#include <optional>
#include <vector>

namespace vetchling::app {

class InstrumentLink : public QObject {
    Q_OBJECT
public:
    /// Nothing where the instrument was silent, or the line broke.
    using Answered = std::function<void(const std::optional<QStringList>&)>;

    /// Takes an open device.
    explicit InstrumentLink(std::unique_ptr<QIODevice> device, QObject* parent = nullptr);
    ~InstrumentLink() override;

    /// Sends lines; as many answers are waited for as there are queries, lines with a '?', among them. After one that did not come the
    /// instrument is brought into step first, so that a late answer is nobody's.
    void ask(const QStringList& lines, Answered answered, int seconds = 60);
    [[nodiscard]] bool busy() const { return !m_waiting.empty(); }
    /// How long a number is waited for that brings the instrument into step, ms.
    void setStepPatience(int milliseconds) { m_stepPatience = milliseconds; }

signals:
    void broken();

private:
    struct Waiting {
        QStringList lines, answers;
        qsizetype expected = 0;
        Answered answered;
        int seconds = 0;
    };
    void send();
    void sendQuestions();
    void bringIntoStep();
    void read();
    void take(const QString& line);
    void finish(bool good);
    void lose();
    std::unique_ptr<QIODevice> m_device;
    std::vector<Waiting> m_waiting;
    QTimer m_patience;
    enum class Step { In, Lost, Asked } m_step = Step::In;
    int m_number = 0; ///< that was asked for last
    int m_stepPatience = 10000;
    bool m_broken = false;
};

/// A serial port that an instrument hangs on. Null where it cannot be opened, or this build has no serial ports; `why` then says so.
std::unique_ptr<QIODevice> openSerial(const QString& name, QString& why);
/// Names of the serial ports there are.
QStringList serialPorts();

} // namespace vetchling::app
