<?php

declare(strict_types=1);

namespace NineTally\Core;

/**
 * Everything the engine refuses to do, with a message that says what, where and what to do.
 *
 * The message is meant for the person who delivered the file or edits the plan; it never holds a cell value.
 */
interface NineTallyException extends \Throwable
{
    /** A stable word for programs, such as "duplicate-column". */
    public function code(): string;
}
