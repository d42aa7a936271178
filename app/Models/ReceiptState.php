<?php

declare(strict_types=1);

namespace App\Models;

enum ReceiptState: string
{
    case Receiving = 'receiving';
    case Received = 'received';
    case Reading = 'reading';
    case Delivered = 'delivered';
    case Refused = 'refused';
    /** An archive of several files, each of which waits by itself now. */
    case Unpacked = 'unpacked';
}
