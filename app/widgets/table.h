#pragma once
/// A quiet table: hairlines below the rows, no boxes; keys, scrolling and screen readers come with it.

#include "app/view/sketch.h"

#include <QAbstractItemModel>
#include <QTableView>

namespace vetchling::app {

inline constexpr int tableRowHeight = 27, tableHeaderHeight = 22; ///< px

/// @param shares of the width for each column
class Table : public QTableView {
    Q_OBJECT
public:
    Table(QAbstractItemModel* model, std::vector<double> shares, QWidget* parent);
    [[nodiscard]] int fullHeight() const;

protected:
    void resizeEvent(QResizeEvent*) override;

private:
    std::vector<double> m_shares;
};

/// Rows of a painted table that fit between its top and a bottom, below its headings.
int tableRowsThatFit(double top, double bottom);
/// The same table as part of a picture or a printed sheet: as many rows as fit, from a first one on or, where it is negative, the last
/// ones. Returns where it ends.
double paintTable(Sketch& sketch, const QAbstractItemModel& model, const std::vector<double>& shares, double top, double width,
                  double bottom, int first = -1);

} // namespace vetchling::app
