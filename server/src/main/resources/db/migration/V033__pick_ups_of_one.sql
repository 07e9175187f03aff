-- Through a link that many use, what one of them took is found without reading what all of them took.
CREATE INDEX pick_up_by_caller ON pick_up (link_id, caller, file_id);
