/// <reference types="next" />
