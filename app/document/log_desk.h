#pragma once
/// What the log of the antenna on show tells: worked out once after each change of it.

#include "core/trim/history.h"

#include <QObject>

#include <functional>

namespace vetchling::app {

class Document;

/// One task's dips with what their wandering means.
struct LogLine {
    DipSeries series;
    std::optional<Drift> drift;
    std::string name; ///< of the piece
};

class LogDesk : public QObject {
    Q_OBJECT
public:
    explicit LogDesk(Document& document, QObject* parent = nullptr);
    [[nodiscard]] const std::vector<LogLine>& lines() const { return m_lines; }
    [[nodiscard]] const std::vector<PlaceMemory>& places() const { return m_places; }
    /// Null if the log has none of that id.
    [[nodiscard]] const Measurement* measurement(const Id& id) const;
    [[nodiscard]] const AirReport* report(const Id& id) const;
    [[nodiscard]] std::vector<Text> compared(const Id& earlier, const Id& later) const;
    /// Days of the first and the last entry; nothing without dated ones.
    [[nodiscard]] std::optional<std::pair<double, double>> span() const;
    [[nodiscard]] std::string csv() const;

    /// One undoable step each.
    void changeMeasurement(const Id& id, const QString& text, const std::function<void(Measurement&)>& change);
    void addReport(AirReport report);
    void remove(const Id& entry);

private:
    void refresh();
    Document& m_document;
    std::vector<LogLine> m_lines;
    std::vector<PlaceMemory> m_places;
};

} // namespace vetchling::app
