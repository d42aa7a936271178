<?php

declare(strict_types=1);

namespace App\Adapters\Sources\InPlace;

use App\Adapters\Sources\SourceDatabase;

/** A database that can be asked, where its rows stand, which groups of them are as others have them. */
interface AsksInPlace extends SourceDatabase
{
    public function dialect(): Dialect;
}
