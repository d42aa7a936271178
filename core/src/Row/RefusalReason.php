<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

enum RefusalReason: string
{
    case WrongNumberOfCells = 'wrong-number-of-cells';
    case UndecodableBytes = 'undecodable-bytes';
    case TextAfterQuote = 'text-after-quote';
    case QuoteLeftOpen = 'quote-left-open';
    case OverRowLimit = 'over-row-limit';
    case NotAnObject = 'not-an-object';
}
