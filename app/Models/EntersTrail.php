<?php

declare(strict_types=1);

namespace App\Models;

/** Of an entry that is an act of somebody: what the trail tells of it is entered in the same transaction, or neither is. */
trait EntersTrail
{
    /** @param array{touch?: bool|null} $options */
    public function save(array $options = []): bool
    {
        return $this->getConnection()->transaction(fn(): bool => parent::save($options));
    }
}
