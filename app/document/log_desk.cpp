#include "app/document/log_desk.h"

#include "app/document/document.h"
#include "core/files/log_csv.h"

#include <algorithm>

namespace vetchling::app {
namespace {

template <class Entry> const Entry* entryOf(const std::vector<Entry>& all, const Id& id)
{
    const auto found = std::find_if(all.begin(), all.end(), [&](const Entry& e) { return e.id == id; });
    return found == all.end() ? nullptr : &*found;
}

} // namespace

LogDesk::LogDesk(Document& document, QObject* parent) : QObject(parent), m_document(document)
{
    connect(&document, &Document::designChanged, this, &LogDesk::refresh);
    connect(&document, &Document::currentChanged, this, &LogDesk::refresh);
    refresh();
}

void LogDesk::refresh()
{
    m_lines.clear();
    m_places.clear();
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const Antenna& antenna = m_document.antenna();
    const auto tasks = trimTasks(antenna);
    for (DipSeries& series : dipSeriesOf(antenna)) {
        const std::string name = tasks[series.task].lever.name;
        const auto drift = driftOf(antenna, series);
        m_lines.push_back({std::move(series), drift, name});
    }
    m_places = placesOf(antenna);
}

const Measurement* LogDesk::measurement(const Id& id) const
{
    return m_document.hasAntenna() ? entryOf(m_document.antenna().trim.measurements, id) : nullptr;
}

const AirReport* LogDesk::report(const Id& id) const
{
    return m_document.hasAntenna() ? entryOf(m_document.antenna().trim.reports, id) : nullptr;
}

std::vector<Text> LogDesk::compared(const Id& earlier, const Id& later) const
{
    const Measurement *a = measurement(earlier), *b = measurement(later);
    return a && b ? comparedWords(m_document.antenna(), *a, *b) : std::vector<Text>();
}

std::optional<std::pair<double, double>> LogDesk::span() const
{
    std::optional<std::pair<double, double>> span;
    const auto take = [&](double day) {
        span = span ? std::pair(std::min(span->first, day), std::max(span->second, day)) : std::pair(day, day);
    };
    for (const LogLine& line : m_lines)
        for (const DipPoint& p : line.series.points)
            take(p.day);
    if (m_document.hasAntenna())
        for (const AirReport& r : m_document.antenna().trim.reports)
            if (const auto day = dayOf(r.when))
                take(*day);
    return span;
}

std::string LogDesk::csv() const { return m_document.hasAntenna() ? files::logCsv(m_document.antenna()) : std::string(); }

void LogDesk::changeMeasurement(const Id& id, const QString& text, const std::function<void(Measurement&)>& change)
{
    m_document.editAntenna(text, {}, [&](Antenna& a) {
        for (Measurement& m : a.trim.measurements)
            if (m.id == id)
                change(m);
    });
}

void LogDesk::addReport(AirReport report)
{
    m_document.editAntenna(tr("write down a report"), {}, [&](Antenna& a) { a.trim.reports.push_back(std::move(report)); });
}

void LogDesk::remove(const Id& entry)
{
    m_document.editAntenna(tr("remove an entry"), {}, [&](Antenna& a) {
        std::erase_if(a.trim.measurements, [&](const Measurement& m) { return m.id == entry; });
        std::erase_if(a.trim.reports, [&](const AirReport& r) { return r.id == entry; });
    });
}

} // namespace vetchling::app
