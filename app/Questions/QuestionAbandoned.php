<?php

declare(strict_types=1);

namespace App\Questions;

/** The question was given up while its answer was being found. */
final class QuestionAbandoned extends \RuntimeException {}
