#pragma once
/// A table of ready words.

#include <QAbstractTableModel>
#include <QStringList>

#include <vector>

namespace vetchling::app {

class RowsModel : public QAbstractTableModel {
    Q_OBJECT
public:
    RowsModel(QStringList header, QObject* parent) : QAbstractTableModel(parent), m_header(std::move(header)) {}
    void show(std::vector<QStringList> rows);
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(m_rows.size()); }
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(m_header.size()); }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    QStringList m_header;
    std::vector<QStringList> m_rows;
};

} // namespace vetchling::app
