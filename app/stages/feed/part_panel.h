#pragma once
/// Rows of the ledger for one part of the chain: its values, how they are known, its size; or the shape's own feed.

#include "app/document/feed_desk.h"
#include "app/view/context.h"
#include "app/widgets/ledger.h"

#include <QObject>

#include <map>

namespace vetchling::app {

class PartPanel : public QObject {
    Q_OBJECT
public:
    /// What decides which rows there are.
    static std::string layout(const Document& document, const FeedDesk& desk, const Id& part);
    /// @param part of the chain, or one of the shape's own; empty for none
    PartPanel(ViewContext& context, FeedDesk& desk, Ledger& ledger, const Id& part, QObject* parent);
    void refresh();

private:
    void addOwn();
    void addPart(const ChainPart& part);
    void addSpec(const PartSpec& spec);
    void addLossTable();
    void addTypes();
    [[nodiscard]] const ChainPart* shown() const;

    ViewContext& m_context;
    FeedDesk& m_desk;
    Ledger& m_ledger;
    Id m_part;
    std::map<std::string, ValueEdit*> m_edits, m_own;
    std::map<std::string, QComboBox*> m_boxes, m_ownBoxes;
    QComboBox *m_type = nullptr, *m_basis = nullptr;
    QLineEdit* m_table = nullptr;
    QLabel *m_tableFault = nullptr, *m_sizeFault = nullptr, *m_alone = nullptr, *m_source = nullptr, *m_tuning = nullptr;
};

} // namespace vetchling::app
