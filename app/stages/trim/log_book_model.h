#pragma once
/// Everything that was written down of an antenna, measurements and on-air reports together, oldest first.

#include "app/stages/trim/trim_words.h"
#include "core/design/measurement.h"
#include "core/units/units.h"

#include <QAbstractTableModel>

namespace vetchling::app {

class LogBookModel : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    enum Column { When, What, Height, Dip, Swr, With, Ground, Remark, columnCountOfAll };

    /// @param words of each measurement
    void setLog(const TrimLog& log, units::System system, const std::vector<LogWords>& words);
    /// Id of the entry in a row; empty if there is none.
    [[nodiscard]] Id idAt(int row) const;
    [[nodiscard]] int rowOf(const Id& entry) const;
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    struct Row {
        Id id;
        std::string when;
        QStringList cells;
    };
    [[nodiscard]] Row rowOf(const Measurement& m, const LogWords& words) const;
    [[nodiscard]] Row rowOf(const AirReport& r) const;
    std::vector<Row> m_rows;
    TrimLog m_log;
    std::vector<LogWords> m_words;
    units::System m_system = units::System::Metric;
};

} // namespace vetchling::app
