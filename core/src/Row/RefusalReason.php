<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/**
 * Why a record could not become a row. Each names the facts that go with it; "lines" are those that a quote holds together, where they are
 * several.
 */
enum RefusalReason: string
{
    /** cells, columns, lines */
    case WrongNumberOfCells = 'wrong-number-of-cells';

    /** encoding; of JSON that cannot be decoded: error */
    case UndecodableBytes = 'undecodable-bytes';

    /** lines */
    case TextAfterQuote = 'text-after-quote';

    /** lines: to the end of the file */
    case QuoteLeftOpen = 'quote-left-open';

    /** limit in bytes, lines */
    case OverRowLimit = 'over-row-limit';

    /** error, where the text is no JSON at all */
    case NotAnObject = 'not-an-object';
}
