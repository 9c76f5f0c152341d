#pragma once
/// The gallery behind +: every antenna that could be put up here, drawn on this site's supports and already tuned.

#include "app/stages/gallery/gallery_card.h"
#include "app/stages/stage.h"

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
    /// Fills itself for the design as it is, and takes the focus.
    void open(double frequency);
    void close();
    /// After a change of theme or units.
    void refresh();

signals:
    void taken(const Antenna& antenna);
    void left();
    void tunerWireWanted();

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    class Grid;
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
    Grid* m_grid;
};

} // namespace vetchling::app
