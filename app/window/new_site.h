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

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct SupportRow {
        QWidget* row;
        QComboBox* kind;
        ValueEdit *height, *east, *north;
        bool placed = false; ///< by the user; else it moves with the garden's size
    };
    void placeSupports();
    /// A house, or the power line: a row with its fields once its button is pressed.
    void addHouse();
    void addLine();
    struct Field {
        QString name;
        const char* objectName;
        double metres, lowest;
        QString after; ///< words behind it
    };
    void addRow(QPushButton* button, const QString& first, const std::vector<Field>& fields, std::vector<ValueEdit*>& edits);
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
    QPushButton *m_addSupport = nullptr, *m_addHouse = nullptr, *m_addLine = nullptr;
    /// m: east and north of its corner, its width and depth, its ridge; empty before there is one.
    std::vector<ValueEdit*> m_house;
    /// m: east and north of both its ends, its height; empty before there is one.
    std::vector<ValueEdit*> m_line;
    struct BandButton {
        QToolButton* button;
        std::string band;
        Wish wish = Wish::No;
    };
    static void turn(BandButton& band, Wish wish);
    std::vector<BandButton> m_bands;
    std::vector<SupportRow> m_supports;
    QLabel* m_complaint = nullptr;
};

} // namespace vetchling::app
