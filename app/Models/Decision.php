<?php

declare(strict_types=1);

namespace App\Models;

enum Decision: string
{
    case Expected = 'expected';
    case Defect = 'defect';
    case Ask = 'ask';
    case Open = 'open';
}
