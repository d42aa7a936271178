<?php

declare(strict_types=1);

namespace App\Questions;

/** A question that is answered from the kept samples, in seconds: it waits for no long work, for a worker does nothing else. */
interface QuickQuestion extends Question {}
