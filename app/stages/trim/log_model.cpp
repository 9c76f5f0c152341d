#include "app/stages/trim/log_model.h"

#include "app/view/words.h"

#include <QDateTime>
#include <QFont>
#include <QLocale>

#include <cmath>

namespace vetchling::app {
namespace {

QString whenText(const std::string& iso)
{
    const QDateTime when = QDateTime::fromString(QString::fromStdString(iso), Qt::ISODate);
    return when.isValid() ? QLocale(QLocale::English).toString(when, QStringLiteral("d MMM yyyy HH:mm")) : QString::fromStdString(iso);
}

} // namespace

void LogModel::setLog(std::vector<Measurement> log, units::System system, std::vector<LogWords> words)
{
    if (log == m_log && system == m_system && words == m_words)
        return;
    beginResetModel();
    m_log = std::move(log);
    m_system = system;
    m_words = std::move(words);
    endResetModel();
}

Id LogModel::idAt(int row) const { return row >= 0 && row < rowCount() ? m_log[std::size_t(row)].id : Id(); }

Qt::ItemFlags LogModel::flags(const QModelIndex& index) const
{
    const Qt::ItemFlags flags = QAbstractTableModel::flags(index);
    return index.isValid() && index.column() != When ? flags | Qt::ItemIsEditable : flags;
}

/// What stands in the cell while it is mended.
QString LogModel::typed(std::size_t row, int column) const
{
    return column == Done ? smallWords(m_log[row].cutSinceLast, m_system) : cell(row, column);
}

bool LogModel::setData(const QModelIndex& index, const QVariant& value, int role)
{
    if (!index.isValid() || index.row() >= rowCount() || role != Qt::EditRole)
        return false;
    Measurement m = m_log[std::size_t(index.row())];
    const std::string words = value.toString().trimmed().toStdString();
    if (words == typed(std::size_t(index.row()), index.column()).toStdString())
        return false;
    const auto take = [&](units::Quantity quantity, double& target) {
        const Result<double> parsed = units::parse(words, quantity, {0.0, m_system});
        if (parsed)
            target = *parsed;
        else
            emit refused(coreWords(parsed.faults().front().message, m_system));
        return parsed.ok();
    };
    bool good = true;
    switch (index.column()) {
    case Done: good = take(units::Quantity::SmallLength, m.cutSinceLast); break;
    case Dip: good = take(units::Quantity::Frequency, m.dip); break;
    case Swr:
        m.dipSwr = 0.0;
        good = words.empty() || words == "–" || take(units::Quantity::Plain, m.dipSwr);
        break;
    case Remark: m.remark = words; break;
    default: good = false;
    }
    if (!good)
        return false;
    if (const Faults faults = findMeasurementFaults(m); !faults.empty()) {
        emit refused(coreWords(faults.front().message, m_system));
        return false;
    }
    emit mended(m);
    return true;
}

int LogModel::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(m_log.size()); }
int LogModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : columnCountOfAll; }

QString LogModel::cell(std::size_t row, int column) const
{
    const Measurement& m = m_log[row];
    switch (column) {
    case When: return whenText(m.when);
    case Done: return doneWords(m, m_words[row], m_system);
    case Dip: return QString::number(m.dip / 1e6, 'f', 3);
    case Swr: return m.dipSwr > 0.0 ? QString::number(m.dipSwr, 'f', 2) : QStringLiteral("–");
    case Remark: return QString::fromStdString(m.remark);
    default: return {};
    }
}

QVariant LogModel::data(const QModelIndex& index, int role) const
{
    if (!index.isValid() || index.row() >= rowCount())
        return {};
    if (role == Qt::DisplayRole || role == Qt::ToolTipRole)
        return cell(std::size_t(index.row()), index.column());
    if (role == Qt::EditRole)
        return typed(std::size_t(index.row()), index.column());
    if (role == Qt::FontRole && index.row() + 1 == rowCount()) { // the latest counts
        QFont bold;
        bold.setBold(true);
        return bold;
    }
    return {};
}

QVariant LogModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    const QString heads[] = {tr("When"), tr("What was done"), tr("Dip, MHz"), tr("SWR there"), tr("Remark")};
    return section < columnCountOfAll ? heads[section] : QString();
}

} // namespace vetchling::app
