#pragma once
/// A new site: its name, soil, size, what stands there, and the bands that are wanted.

#include "app/view/context.h"

#include <QDialog>

class QComboBox;
class QGridLayout;
class QLineEdit;
class QPushButton;
class QToolButton;
class QVBoxLayout;

namespace vetchling::app {

class ValueEdit;

class NewSiteDialog : public QDialog {
    Q_OBJECT
public:
    /// @param blank units, and the id of the band plan that is proposed
    NewSiteDialog(const ViewContext& context, const Design& blank, QWidget* parent = nullptr);
    [[nodiscard]] Design design() const;
    void accept() override;

private:
    struct SupportRow {
        QWidget* row;
        QComboBox* kind;
        ValueEdit *height, *east, *north;
        bool placed = false; ///< by the user; else it moves with the garden's size
    };
    void placeSupports();
    void addSite();
    void addBands();
    void addSupports();
    void addSupport();
    void showBands();
    ValueEdit* length(QWidget* parent, const QString& name, const QString& objectName, double metres, double lowest, double highest);
    [[nodiscard]] units::System system() const { return m_blank.operation.system; }

    const ViewContext& m_context;
    Design m_blank;
    QVBoxLayout *m_layout = nullptr, *m_supportRows = nullptr;
    QLineEdit* m_name = nullptr;
    QComboBox *m_soil = nullptr, *m_plan = nullptr;
    ValueEdit *m_width = nullptr, *m_depth = nullptr;
    QGridLayout* m_bandGrid = nullptr;
    QPushButton* m_addSupport = nullptr;
    std::vector<QToolButton*> m_bands;
    std::vector<SupportRow> m_supports;
    QLabel* m_complaint = nullptr;
};

} // namespace vetchling::app
