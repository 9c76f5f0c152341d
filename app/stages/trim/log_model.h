#pragma once
/// The measurements of an antenna as a table.

#include "app/stages/trim/trim_words.h"
#include "core/design/measurement.h"
#include "core/units/units.h"

#include <QAbstractTableModel>

namespace vetchling::app {

class LogModel : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    enum Column { When, Done, Dip, Swr, Remark, columnCountOfAll };

    /// @param words of each measurement
    void setLog(std::vector<Measurement> log, units::System system, std::vector<LogWords> words);
    /// Id of the measurement in a row; empty if there is none.
    [[nodiscard]] Id idAt(int row) const;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

signals:
    void mended(const Measurement& measurement);
    void refused(const QString& why);

private:
    [[nodiscard]] QString typed(std::size_t row, int column) const;
    [[nodiscard]] QString cell(std::size_t row, int column) const;
    std::vector<Measurement> m_log;
    units::System m_system = units::System::Metric;
    std::vector<LogWords> m_words;
};

} // namespace vetchling::app
