#pragma once
/// The gallery behind +: every antenna that could be put up here, drawn on this site's supports and already tuned; and which one of them to
/// take.

#include "app/stages/gallery/gallery_card.h"
#include "app/stages/gallery/which_one.h"
#include "app/stages/stage.h"
#include "app/stages/view_buttons.h"

#include <QComboBox>
#include <QLineEdit>

#include <memory>
#include <optional>

namespace vetchling::app {

class ValueEdit;

class Gallery : public StagePage {
    Q_OBJECT
public:
    Gallery(ViewContext& context, QWidget* parent = nullptr);
    ~Gallery() override;

    /// What one wants of it: any bands, one band, harmonics of one length, several lengths for several bands.
    enum class Want { Any, One, Harmonics, Several, Shed };
    static QString wantWords(Want want);

    [[nodiscard]] GalleryDesk& desk() { return m_desk; }
    enum class View { Cards, WhichOne };
    /// Fills itself for the design as it is, and takes the focus. @param view nothing: the one that was on show last
    void open(double frequency, std::optional<View> view = {});
    [[nodiscard]] WhichOne& whichOne() { return *m_which; }
    [[nodiscard]] AdvisorDesk& advisor() { return m_advisor; }
    void close();
    /// After a change of theme or units.
    void refresh();

signals:
    void taken(const Antenna& antenna);
    void left();
    void hung(); ///< antennas of an answer, which are on show
    void tunerWireWanted();
    void trialChanged(const std::vector<std::pair<Id, CurvePointer>>& curves);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    class Grid;
    void turn();
    [[nodiscard]] bool asksWhich() const { return m_views->place() == 1; }
    void rebuild();
    void offerTies();
    void search();
    void show(const std::string& proposal);
    void take(const std::string& proposal);
    [[nodiscard]] double scale() const;
    [[nodiscard]] std::vector<const Support*> supports() const;
    [[nodiscard]] QString nameOf(const GalleryDesk::Entry& entry) const;

    ViewContext& m_context;
    GalleryDesk m_desk;
    ValueEdit* m_frequency;
    bool m_told = false;          ///< that it could not be tuned
    std::string m_pressed;        ///< proposal that is taken as soon as it is tuned; empty: none
    std::optional<double> m_kept; ///< Hz that the person typed, for this design
    QLineEdit* m_filter;
    QComboBox *m_want, *m_ties;
    std::vector<std::vector<Id>> m_tieChoices; ///< of m_ties; the first is empty
    QLabel* m_complaint;
    QPushButton* m_tuner;
    Grid* m_grid;
    AdvisorDesk m_advisor;
    WhichOne* m_which;
    ViewButtons* m_views = nullptr;
};

} // namespace vetchling::app
