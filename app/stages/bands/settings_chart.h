#pragma once
/// How far each band is pulled out, tapped or slid: the lever over the frequency, and below it the settings as a table.

#include "app/view/canvas.h"
#include "core/study/settings.h"

#include <memory>

namespace vetchling::app {

/// The settings as words; it may be painted on any thread.
struct SettingTable {
    struct Line {
        QStringList cells;
        bool marked = false, out = false; ///< of the selected band; out of reach
    };
    std::vector<Line> lines; ///< headings first; empty where nothing is known
    std::vector<double> shares;
    void paint(Sketch& sketch, const QRectF& area) const;
};

class SettingsChart final : public Canvas {
    Q_OBJECT
public:
    explicit SettingsChart(ViewContext& context);

    /// @param chart may be null @param words said in place of it @param instruction from the present setting to that of the selected band
    void show(std::shared_ptr<const study::SettingChart> chart, const QString& words, const QString& instruction);
    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] SettingTable table() const;
    /// The table's cells, headings first.
    [[nodiscard]] std::vector<QStringList> cells() const;

signals:
    void taken(const Id& band);

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] std::vector<const study::SettingRow*> rows() const;
    [[nodiscard]] QRectF tableArea(const QSizeF& size) const;
    [[nodiscard]] std::vector<double> sharesOf(int columns) const;
    void paintChart(Sketch& sketch, const QRectF& area) const;
    [[nodiscard]] const study::SettingRow* rowAt(QPointF p) const;

    std::shared_ptr<const study::SettingChart> m_chart;
    QString m_words, m_instruction;
};

/// "7.12 m", "5 sections + 12.5 cm", "31 degrees".
QString settingWords(const shapes::AntennaShape& shape, const std::string& parameter, double value, units::System system);

} // namespace vetchling::app
