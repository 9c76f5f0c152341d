#include "app/stages/trim/log_book_model.h"

#include "app/view/words.h"

#include <QDateTime>
#include <QLocale>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

QString dateWords(const std::string& iso)
{
    const QDateTime when = QDateTime::fromString(QString::fromStdString(iso), Qt::ISODate);
    return when.isValid() ? QLocale(QLocale::English).toString(when, QStringLiteral("d MMM yy HH:mm")) : QString::fromStdString(iso);
}

QString distanceWords(double metres, units::System system)
{
    return system == units::System::Metric ? LogBookModel::tr("%1 km").arg(metres / 1e3, 0, 'f', 0)
                                           : LogBookModel::tr("%1 mi").arg(metres / 1609.344, 0, 'f', 0);
}

} // namespace

void LogBookModel::setLog(const TrimLog& log, units::System system, const std::vector<LogWords>& words)
{
    if (log == m_log && system == m_system && words == m_words && !m_rows.empty())
        return;
    beginResetModel();
    m_log = log;
    m_system = system;
    m_words = words;
    m_rows.clear();
    for (std::size_t i = 0; i < log.measurements.size(); ++i)
        m_rows.push_back(rowOf(log.measurements[i], i < words.size() ? words[i] : LogWords()));
    for (const AirReport& r : log.reports)
        m_rows.push_back(rowOf(r));
    std::stable_sort(m_rows.begin(), m_rows.end(), [](const Row& a, const Row& b) { return a.when < b.when; });
    endResetModel();
}

LogBookModel::Row LogBookModel::rowOf(const Measurement& m, const LogWords& words) const
{
    const QString with = m.coax > 0.0 ? tr("%1 at %2 of coax").arg(QString::fromStdString(m.instrument), lengthWords(m.coax, m_system, 0))
                                      : QString::fromStdString(m.instrument);
    QStringList ground;
    for (const std::string& word : {m.place, std::string(soilStateWords[std::size_t(m.soil)]), m.weather})
        if (!word.empty())
            ground << QString::fromStdString(word);
    QString remark = QString::fromStdString(m.remark);
    if (!m.pictures.empty())
        remark = (remark.isEmpty() ? QString() : remark + QStringLiteral(", ")) + tr("%n picture(s)", nullptr, int(m.pictures.size()));
    return {m.id,
            m.when,
            {dateWords(m.when), doneWords(m, words, m_system), m.height ? heightWords(*m.height, m_system) : QStringLiteral("–"),
             QString::number(m.dip / 1e6, 'f', 3), m.dipSwr > 0.0 ? QString::number(m.dipSwr, 'f', 2) : QStringLiteral("–"), with,
             ground.join(QStringLiteral(", ")), remark}};
}

LogBookModel::Row LogBookModel::rowOf(const AirReport& r) const
{
    QString what = tr("heard %1").arg(QString::fromStdString(r.report));
    if (r.distance > 0.0)
        what += tr(", %1").arg(distanceWords(r.distance, m_system));
    QStringList conditions;
    if (r.bearing)
        conditions << tr("bearing %1°").arg(*r.bearing, 0, 'f', 0);
    if (r.solarFlux)
        conditions << tr("solar flux %1").arg(*r.solarFlux, 0, 'f', 0);
    if (r.kIndex)
        conditions << tr("K %1").arg(*r.kIndex, 0, 'g', 2);
    if (r.fading != Fading::NotNoted)
        conditions << tr("fading: %1").arg(coreWords(fadingWords[std::size_t(r.fading)]));
    return {r.id,
            r.when,
            {dateWords(r.when), what, QStringLiteral("–"), QString::number(r.frequency / 1e6, 'f', 3), QStringLiteral("–"),
             r.power > 0.0 ? tr("%1 W").arg(r.power, 0, 'f', 0) : QString(), conditions.join(QStringLiteral(", ")),
             QString::fromStdString(r.remark)}};
}

Id LogBookModel::idAt(int row) const { return row >= 0 && row < rowCount() ? m_rows[std::size_t(row)].id : Id(); }

int LogBookModel::rowOf(const Id& entry) const
{
    const auto found = std::find_if(m_rows.begin(), m_rows.end(), [&](const Row& r) { return r.id == entry; });
    return found == m_rows.end() ? -1 : int(found - m_rows.begin());
}

int LogBookModel::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(m_rows.size()); }
int LogBookModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : columnCountOfAll; }

QVariant LogBookModel::data(const QModelIndex& index, int role) const
{
    if (!index.isValid() || index.row() >= rowCount() || (role != Qt::DisplayRole && role != Qt::ToolTipRole))
        return {};
    return m_rows[std::size_t(index.row())].cells.value(index.column());
}

QVariant LogBookModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    const QString heads[] = {tr("When"),  tr("What"), tr("Height"), tr("MHz"), tr("SWR"), tr("With"), tr("Place, soil, weather"),
                             tr("Remark")};
    return section < columnCountOfAll ? heads[section] : QString();
}

} // namespace vetchling::app
