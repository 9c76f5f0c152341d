#pragma once
/// Small bars of the ledger: lengths compared, and shares of the power.

#include "app/view/theme.h"

#include <QWidget>

#include <vector>

namespace vetchling::app {

/// Rows of name, bar and figure, the bars to one scale that starts near the shortest.
class CompareBars : public QWidget {
    Q_OBJECT
public:
    struct Row {
        QString name, figure;
        double value = 0.0;
        QColor colour;
    };
    CompareBars(const Theme& theme, QWidget* parent = nullptr);
    void setRows(std::vector<Row> rows);
    [[nodiscard]] const std::vector<Row>& rows() const { return m_rows; }
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const Theme& m_theme;
    std::vector<Row> m_rows;
};

/// One bar divided into shares, each with its figure below.
class ShareBar : public QWidget {
    Q_OBJECT
public:
    struct Share {
        QString name;
        double part = 0.0;
        QColor colour;
    };
    ShareBar(const Theme& theme, QWidget* parent = nullptr);
    void setShares(std::vector<Share> shares, double power);
    [[nodiscard]] QSize sizeHint() const override { return {268, 42}; }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const Theme& m_theme;
    std::vector<Share> m_shares;
    double m_power = 100.0;
};

} // namespace vetchling::app
