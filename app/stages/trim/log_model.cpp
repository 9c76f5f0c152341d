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
    return when.isValid() ? QLocale(QLocale::English).toString(when, QStringLiteral("d MMM HH:mm")) : QString::fromStdString(iso);
}

} // namespace

void LogModel::setLog(std::vector<Measurement> log, units::System system)
{
    if (log == m_log && system == m_system)
        return;
    beginResetModel();
    m_log = std::move(log);
    m_system = system;
    endResetModel();
}

int LogModel::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(m_log.size()); }
int LogModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : columnCountOfAll; }

QString LogModel::done(std::size_t row) const
{
    const Measurement& m = m_log[row];
    const QString amount = smallWords(std::abs(m.cutSinceLast), m_system);
    if (m.cutSinceLast == 0.0)
        return row == 0 ? tr("hoisted as cut") : tr("measured again");
    return m.cutSinceLast < 0.0 ? tr("lengthened %1 an end").arg(amount)
           : m.folded           ? tr("folded %1 an end").arg(amount)
                                : tr("cut %1 an end").arg(amount);
}

QString LogModel::cell(std::size_t row, int column) const
{
    const Measurement& m = m_log[row];
    switch (column) {
    case When: return whenText(m.when);
    case Done: return done(row);
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
