<?php

declare(strict_types=1);

namespace App\Problems;

/** Somebody asked for values that are kept from them. The message says what to do instead. */
final class ValuesAreMasked extends \RuntimeException {}
