#pragma once
/// The log as it is painted: how each dip wandered over the months, and the page for the folder. Of values alone, on any thread.

#include "app/document/log_desk.h"
#include "app/stages/trim/trim_words.h"
#include "app/view/sketch.h"
#include "core/units/units.h"

#include <QCoreApplication>

namespace vetchling::app {

struct LogFacts {
    QString name, site, sentence;
    TrimLog log;
    std::vector<LogWords> words; ///< of each measurement
    std::vector<LogLine> lines;
    std::optional<std::pair<double, double>> span; ///< days of the first and the last entry; nothing without dates
    std::vector<Id> marked;                        ///< entries that are chosen
    units::System system = units::System::Metric;
};

/// Shares of the width that the columns of the book have.
const std::vector<double>& bookShares();

class LogDrawing {
    Q_DECLARE_TR_FUNCTIONS(LogDrawing)
public:
    static constexpr double top = 8.0, height = 210.0, bookTop = top + height + 16.0; ///< px of the time lines, and of the book below

    explicit LogDrawing(const LogFacts& facts) : m_facts(facts) {}
    void times(Sketch& sketch, const QRectF& area) const;

private:
    void paintSeries(Sketch& sketch, const QRectF& area, const LogLine& line, double from, double to, bool dates) const;
    void paintReports(Sketch& sketch, const QRectF& area, double from, double to) const;

    const LogFacts& m_facts;
};

/// A PDF with the time lines and every entry. Empty, or why it was not written.
Faults writeLogPage(const LogFacts& facts, const QString& path);

} // namespace vetchling::app
