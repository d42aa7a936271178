<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\RecordPlace;

/** For readers of one file as it was delivered. */
trait SinglePart
{
    public function place(int $line): RecordPlace
    {
        return new RecordPlace(1, $line);
    }
}
